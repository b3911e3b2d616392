import { whereOf, whereWords } from '../where.js';
import { imageFinding } from './image-case.js';

export const noDimensions = imageFinding({
  id: 'no-dimensions',
  title: 'no width and height',
  doer: 'markup',
  fix: 'Add the attributes width and height with the pixels of the file.',
  isWork: true,
  isInSnippets: true,
  check: ({ file, placements }) => {
    const bare = placements.filter(
      ({ kind, shown, markup }) => shown && kind === 'img' && markup?.dimensions === false,
    );
    return bare.length > 0 ? { intrinsic: file.intrinsic, where: whereOf(bare) } : undefined;
  },
  describe: ({ intrinsic, where }) => {
    const add = intrinsic ? `: add width="${intrinsic.width}" height="${intrinsic.height}"` : '';
    return `its box is not known before it arrives, so the page jumps${add} (${whereWords(where)})`;
  },
});
