import { imageFinding } from './image-case.js';

export const unreadable = imageFinding({
  id: 'unreadable',
  title: 'cannot be read',
  doer: 'content',
  fix: 'Replace the file with one that can be read.',
  isWork: true,
  docs: {
    meaning: 'A file cannot be decoded, or is not an image.',
    why: 'Visitors see nothing, or a part.',
    computed: 'By the decoders that the program uses.',
    ignore: 'Where browsers show it all the same.',
  },
  check: ({ file }) => (file.problem === null ? undefined : { problem: file.problem }),
  describe: ({ problem }) => problem,
});
