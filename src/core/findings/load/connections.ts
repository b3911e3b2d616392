import { connectionsByHost, isClosedAfter, timeOfFurther } from './closed-connections.js';
import { loadFinding } from './load-case.js';

/** Connecting for less than this is not felt, in milliseconds. */
const felt = 50;

/** Several connections to one host that could share one. */
export const connections = loadFinding({
  id: 'connections',
  title: 'several connections to one host',
  doer: 'server',
  fix: 'Serve the host over HTTP/2 or HTTP/3.',
  isWork: false,
  docs: {
    meaning: 'The browser opens several connections to one host.',
    why: 'Connecting takes round trips, and each starts slowly.',
    computed: 'By the connections of the load; under 50 ms nothing is said.',
    ignore: 'Where they are opened while nothing waits.',
  },
  check: (load) =>
    [...connectionsByHost(load)].flatMap(([host, opened]) => {
      const spent = timeOfFurther(opened);
      // Where the server closes them, that is the reason.
      if (opened.length < 2 || spent < felt || opened.some(isClosedAfter)) return [];
      const http1 = opened.every(({ protocol }) => /^http\/1/.test(protocol));
      const data = { host, connections: opened.length, spent, http1 };
      return [{ data, url: null, cost: null, late: false }];
    }),
  describe: ({ host, connections: opened, spent, http1 }, { time }) =>
    `${opened} connections to ${host}: all but the first take ${time(spent)} to open${http1 ? '; HTTP/2 would share one' : ''}`,
});
