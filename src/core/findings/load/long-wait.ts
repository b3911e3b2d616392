import { isEarly, timeText } from './load-case.js';
import type { LoadCheck } from './load-case.js';

/** A server that takes longer than this over an answer, besides the line, is slow. */
const patience = 300;

/** A long wait for the first byte: the server's time, not the line's. */
export const longWait: LoadCheck = (load) =>
  load.requests.flatMap((request) => {
    const server = request.phases.wait - (load.network?.latency ?? 0);
    if (server < patience) return [];
    return {
      id: 'long-wait',
      message: `its server takes ${timeText(server)} to answer`,
      url: request.url,
      cost: server,
      late: !isEarly(request, load),
    };
  });
