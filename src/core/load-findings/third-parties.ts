import { max } from 'simple-statistics';
import { hostOf } from '../address.js';
import { groupBy } from '../group-by.js';
import { isEarly, span, weight } from './load-case.js';
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
      message: `${host}: ${requestWords} with ${weight(bytes)} before the page is usable${held > 0 ? `, and blocks rendering for ${span(held)}` : ''}`,
      url: null,
      cost: held > 0 ? held : null,
      late: false,
    };
  });
};
