import type { ImageCheck } from './finding.js';

export const placedNowhere: ImageCheck = ({ placements }) =>
  placements.length > 0
    ? undefined
    : {
        id: 'placed-nowhere',
        message: 'fetched, but no element shows it: preloaded, drawn by a script, or not used',
      };
