import { max } from 'simple-statistics';
import { hostOf } from '../../address/address.js';
import { groupBy } from '../../base/group-by.js';
import { isEarly, loadFinding, sumOfBytes } from './load-case.js';

/** What each third party loads before the page is usable. */
export const thirdParties = loadFinding({
  id: 'third-party',
  title: 'third parties before the page is usable',
  doer: 'markup',
  fix: 'Remove what is not used any more, and load the rest with async or later.',
  isWork: false,
  docs: {
    meaning: 'Third parties load files before the page is usable.',
    why: 'They compete with the page itself.',
    computed: 'By the hosts of the requests before the marker interactive.',
    ignore: 'Where the page is for what they send.',
  },
  check: (load) => {
    const early = load.requests.filter((request) => request.thirdParty && isEarly(request, load));
    const byHost = groupBy(early, ({ url }) => hostOf(url));
    return [...byHost].map(([host, requests]) => {
      const blocking = requests.filter(({ renderBlocking }) => renderBlocking);
      const blocked = max([0, ...blocking.map(({ start, end }) => (end ?? start) - start)]);
      const data = { host, requests: requests.length, bytes: sumOfBytes(requests), blocked };
      return { data, url: null, cost: blocked > 0 ? blocked : null, late: false };
    });
  },
  describe: ({ host, requests, bytes, blocked }, format) =>
    `${host}: ${format.count(requests, 'request')} with ${format.bytes(bytes)} before the page is usable${blocked > 0 ? `; ${requests === 1 ? 'it blocks' : 'they block'} rendering for ${format.time(blocked)}` : ''}`,
});
