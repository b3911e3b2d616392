import { hostOf } from '../../address/address.js';
import { groupBy } from '../../base/group-by.js';
import { isEarly, timeText } from './load-case.js';
import type { LoadCheck } from './load-case.js';

/** Connecting for less than this is not felt, in milliseconds. */
const felt = 50;

/** Several connections to one host that speaks a protocol which could share one. */
export const connections: LoadCheck = (load) => {
  const connecting = load.requests.filter(
    (request) => request.phases.connect + request.phases.tls > 0 && isEarly(request, load),
  );
  const byHost = groupBy(connecting, ({ url }) => hostOf(url));
  return [...byHost]
    .filter(([, opened]) => opened.length > 1)
    .flatMap(([host, opened]) => {
      const spent = opened
        .slice(1)
        .reduce((sum, { phases }) => sum + phases.connect + phases.tls, 0);
      if (spent < felt) return [];
      const old = opened.every(({ protocol }) => /^http\/1/.test(protocol));
      return {
        id: 'connections',
        message: `${opened.length} connections to ${host}, ${timeText(spent)} of connecting besides the first${old ? ': HTTP/2 would share one' : ''}`,
        url: null,
        cost: null,
        late: false,
      };
    });
};
