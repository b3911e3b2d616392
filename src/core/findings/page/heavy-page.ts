import { totalBytes } from '../../load/request.js';
import { pageFinding } from './page-case.js';

export const heavyPage = pageFinding({
  id: 'heavy-page',
  title: 'heavy page',
  doer: null,
  fix: 'Start with the images and requests that explain and clock list first.',
  isWork: false,
  docs: {
    meaning: 'A page has more than 500 kB in total in its heaviest view.',
    why: 'It takes seconds on the line of a phone.',
    computed: 'By the bytes on the wire of a first visit.',
    ignore: 'Where the page is what people came to download.',
  },
  check: ({ page, policy }) => {
    const bytes = totalBytes(page.bytesByType);
    const limit = policy.ceilings.page;
    return bytes > limit ? { bytes, limit } : undefined;
  },
  describe: ({ bytes, limit }, { bytes: inBytes }) =>
    `the page has ${inBytes(bytes)} in total; by the rule of thumb a light page has under ${inBytes(limit)}`,
});
