import { max } from 'simple-statistics';
import { hostOf } from '../../address/address.js';
import { loadFinding, sumOfBytes } from './load-case.js';

/** What is still requested once the page is usable: it makes "fully loaded" late, and no visitor waits for it. */
export const tail = loadFinding({
  id: 'tail',
  title: 'requests after the page is usable',
  doer: null,
  fix: 'Nothing, as long as it does not slow down what visitors do next.',
  isWork: false,
  docs: {
    meaning: 'Requests go on after the page is usable.',
    why: 'They may slow down what visitors do next.',
    computed: 'By the times of the requests and the marker interactive.',
    ignore: 'Where they are small.',
  },
  check: ({ requests, usable }) => {
    if (usable === null) return [];
    const after = requests.filter(({ start }) => start >= usable);
    if (after.length === 0) return [];
    const data = {
      requests: after.length,
      bytes: sumOfBytes(after),
      hosts: [...new Set(after.map(({ url }) => hostOf(url)))].filter((host) => host !== ''),
      last: max(after.map(({ start, end }) => end ?? start)),
    };
    return [{ data, url: null, cost: null, late: true }];
  },
  describe: ({ requests, bytes, hosts, last }, format) => {
    const more = hosts.length > 3 ? ` and ${hosts.length - 3} more` : '';
    const named = hosts.slice(0, 3).join(', ') + more;
    return `${format.count(requests, 'request')} with ${format.bytes(bytes)} from ${named}, the last at ${format.time(last)}; no visitor waits for ${requests === 1 ? 'it' : 'them'}`;
  },
});
