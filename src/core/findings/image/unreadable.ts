import { imageFinding } from './image-case.js';

export const unreadable = imageFinding({
  id: 'unreadable',
  title: 'cannot be read',
  doer: 'content',
  fix: 'Replace the file with one that can be read.',
  isWork: true,
  check: ({ file }) => (file.problem === null ? undefined : { problem: file.problem }),
  describe: ({ problem }) => problem,
});
