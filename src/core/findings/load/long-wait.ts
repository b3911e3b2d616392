import { serverTime } from '../../load/server-time.js';
import { isEarly, loadFinding } from './load-case.js';

/** A server that takes longer than this to respond is slow. */
const patience = 300;

/** A long wait for the first byte: the server's time, not the network's. */
export const longWait = loadFinding({
  id: 'long-wait',
  title: 'slow server responses',
  doer: 'server',
  fix: 'Find out what the server works on: cache it, or make it quicker.',
  isWork: false,
  docs: {
    meaning: 'A server takes long to begin its response.',
    why: 'Nothing can be done with the line meanwhile.',
    computed:
      'By the phase wait, less the round trip of the line and the time for which it was busy with other responses.',
    ignore: 'Where the response is made for one visitor at a time.',
  },
  check: (load) =>
    load.requests.flatMap((request) => {
      const server = serverTime(request, load.requests, load.network);
      if (server < patience) return [];
      return [{ data: { server }, url: request.url, cost: server, late: !isEarly(request, load) }];
    }),
  describe: ({ server }, { time }) => `its server takes ${time(server)} to respond`,
});
