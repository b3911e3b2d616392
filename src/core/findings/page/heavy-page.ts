import { totalBytes } from '../../load/request.js';
import { pageFinding } from './page-case.js';

export const heavyPage = pageFinding({
  id: 'heavy-page',
  title: 'heavy page',
  doer: null,
  fix: 'Start with the images and requests that explain and clock list first.',
  isWork: false,
  check: ({ page, policy }) => {
    const bytes = totalBytes(page.bytesByType);
    const limit = policy.ceilings.page;
    return bytes > limit ? { bytes, limit } : undefined;
  },
  describe: ({ bytes, limit }, { bytes: inBytes }) =>
    `the page has ${inBytes(bytes)} in total; by the rule of thumb a light page has under ${inBytes(limit)}`,
});
