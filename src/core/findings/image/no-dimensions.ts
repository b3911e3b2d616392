import { whereOf, whereWords } from '../where.js';
import { imageFinding } from './image-case.js';

export const noDimensions = imageFinding({
  id: 'no-dimensions',
  title: 'moves the page when it arrives',
  doer: 'markup',
  fix: 'Give the attributes width and height the pixels of the file.',
  isWork: true,
  isInSnippets: true,
  docs: {
    meaning: 'The page moves when the image arrives.',
    why: 'Visitors lose their line, or press what they did not mean.',
    computed:
      'The page is laid out with the file held back, and compared with how it is afterwards.',
    ignore: 'Where nothing comes after it.',
  },
  check: ({ file, placements }) => {
    const bare = placements.filter(
      ({ kind, shown, markup }) => shown && kind === 'img' && markup?.dimensions === false,
    );
    return bare.length > 0 ? { intrinsic: file.intrinsic, where: whereOf(bare) } : undefined;
  },
  step: ({ intrinsic }) =>
    intrinsic
      ? `set width="${intrinsic.width}" height="${intrinsic.height}"`
      : 'set width and height to the pixels of the file',
  describe: ({ intrinsic, where }) => {
    const add = intrinsic ? `: set width="${intrinsic.width}" height="${intrinsic.height}"` : '';
    return `the page jumps when it arrives, because its box is not known before${add} (${whereWords(where)})`;
  },
});
