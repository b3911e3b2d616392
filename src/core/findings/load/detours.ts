import { isEarly, timeText } from './load-case.js';
import type { LoadCheck } from './load-case.js';

/** Redirects and errors: each costs its time, and brings nothing. */
export const detours: LoadCheck = (load) =>
  load.requests.flatMap((request) => {
    const { url, status, failure, redirectsTo, start, end } = request;
    const what =
      status >= 400
        ? `answered ${status}`
        : redirectsTo !== '' || (status >= 300 && status !== 304 && status < 400)
          ? `redirects (${status})${redirectsTo === '' ? '' : ` to ${redirectsTo}`}`
          : failure !== null && failure !== 'canceled'
            ? `failed: ${failure}`
            : undefined;
    if (what === undefined) return [];
    const cost = end === null ? null : end - start;
    return {
      id: redirectsTo === '' ? 'error' : 'redirect',
      message: cost === null ? what : `${what}, after ${timeText(cost)}`,
      url,
      cost,
      late: !isEarly(request, load),
    };
  });
