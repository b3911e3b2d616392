import type { ImageCheck } from './finding.js';

export const unreadable: ImageCheck = ({ file }) =>
  file.problem === null ? undefined : { id: 'unreadable', message: file.problem };
