import { grouped } from '../../base/thousands.js';
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
  describe: ({ bytes, limit }) =>
    `the page has ${grouped(bytes)} bytes in total; by the rule of thumb a light page has under ${grouped(limit)}`,
});
