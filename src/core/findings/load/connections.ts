import { hostOf } from '../../address/address.js';
import { groupBy } from '../../base/group-by.js';
import { isEarly, loadFinding } from './load-case.js';

/** Connecting for less than this is not felt, in milliseconds. */
const felt = 50;

/** Several connections to one host that could share one. */
export const connections = loadFinding({
  id: 'connections',
  title: 'several connections to one host',
  doer: 'server',
  fix: 'Serve the host over HTTP/2 or HTTP/3.',
  isWork: false,
  check: (load) => {
    const connecting = load.requests.filter(
      (request) => request.phases.connect + request.phases.tls > 0 && isEarly(request, load),
    );
    const byHost = groupBy(connecting, ({ url }) => hostOf(url));
    return [...byHost].flatMap(([host, opened]) => {
      const spent = opened
        .slice(1)
        .reduce((sum, { phases }) => sum + phases.connect + phases.tls, 0);
      if (opened.length < 2 || spent < felt) return [];
      const http1 = opened.every(({ protocol }) => /^http\/1/.test(protocol));
      const data = { host, connections: opened.length, spent, http1 };
      return [{ data, url: null, cost: null, late: false }];
    });
  },
  describe: ({ host, connections: opened, spent, http1 }, { time }) =>
    `${opened} connections to ${host}: all but the first take ${time(spent)} to open${http1 ? '; HTTP/2 would share one' : ''}`,
});
