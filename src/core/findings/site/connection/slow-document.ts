import { medianSorted, min } from 'simple-statistics';
import { pageFinding } from '../site-case.js';
import type { SiteCase } from '../site-case.js';

/** Milliseconds within which a server should begin to send a page. */
const allowed = 500;

/** A page that the server takes long to begin with, even at its best. */
export const slowDocument = pageFinding({
  id: 'slow-document',
  title: 'page that the server takes long to make',
  doer: 'server',
  fix: 'Find out what the server works on: keep the page in a cache, or make it quicker.',
  isWork: true,
  docs: {
    meaning: 'The first byte of a page took over half a second in each view.',
    why: 'Nothing else of the page can begin before.',
    computed:
      'The shortest time from the request to the first byte over the views. The time that would be spared is what it is longer than the median page of the survey. The survey itself keeps the server busy; clock measures a page alone.',
    ignore: 'Where the page is made for one visitor at a time and worth the wait.',
  },
  step: () => 'find out what the server works on, and keep the page in a cache',
  checkPage: ({ loads }, site) => {
    const waits = loads.map(({ wait }) => wait);
    if (waits.length === 0) return [];
    const [best, usual] = [min(waits), usualWait(site)];
    const time = best - Math.min(usual, best);
    if (best <= allowed) return [];
    return [{ data: { best, usual }, bytes: null, time }];
  },
  describe: ({ best, usual }, { time }) =>
    `takes at least ${time(best)} from the request to the first byte; the median page of the survey takes ${time(usual)}`,
});

const known = new WeakMap<SiteCase, number>();

/** The median of the best times of all pages. */
function usualWait(site: SiteCase): number {
  const before = known.get(site);
  if (before !== undefined) return before;
  const bests = site.pages
    .filter(({ loads }) => loads.length > 0)
    .map(({ loads }) => min(loads.map(({ wait }) => wait)));
  const usual = Math.round(medianSorted(bests.sort((a, b) => a - b)));
  known.set(site, usual);
  return usual;
}
