import { max } from 'simple-statistics';
import { hostOf } from '../../address/address.js';
import { groupBy } from '../../base/group-by.js';
import { isEarly, timeText, bytesText } from './load-case.js';
import type { LoadCheck } from './load-case.js';

/** What each third party has of the page before it is usable. */
export const thirdParties: LoadCheck = (load) => {
  const early = load.requests.filter((request) => request.thirdParty && isEarly(request, load));
  const byHost = groupBy(early, ({ url }) => hostOf(url));
  return [...byHost].map(([host, requests]) => {
    const bytes = requests.reduce((sum, { transferBytes }) => sum + transferBytes, 0);
    const blocking = requests.filter(({ renderBlocking }) => renderBlocking);
    const held = max([0, ...blocking.map(({ start, end }) => (end ?? start) - start)]);
    const requestWords = `${requests.length} ${requests.length === 1 ? 'request' : 'requests'}`;
    return {
      id: 'third-party',
      message: `${host}: ${requestWords} with ${bytesText(bytes)} before the page is usable${held > 0 ? `, and blocks rendering for ${timeText(held)}` : ''}`,
      url: null,
      cost: held > 0 ? held : null,
      late: false,
    };
  });
};
