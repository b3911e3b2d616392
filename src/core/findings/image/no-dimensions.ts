import type { ImageCheck } from './finding.js';
import { whereOf } from './where.js';

export const noDimensions: ImageCheck = ({ file, placements }) => {
  const bare = placements.filter(
    ({ kind, shown, markup }) => shown && kind === 'img' && markup?.dimensions === false,
  );
  if (bare.length === 0) return undefined;
  const { intrinsic } = file;
  const say = intrinsic ? `: say width="${intrinsic.width}" height="${intrinsic.height}"` : '';
  return {
    id: 'no-dimensions',
    message: `its box is not known before it arrives, and the page jumps${say} (${whereOf(bare)})`,
  };
};
