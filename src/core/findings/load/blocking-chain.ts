import { max, min } from 'simple-statistics';
import { timeText } from './load-case.js';
import type { LoadCheck } from './load-case.js';

/** Two requests that begin within this time of one another were found together. */
const together = 30;

/** Requests that hold back the first paint one after another: each is found only when the one before is there. */
export const blockingChain: LoadCheck = ({ requests, document }) => {
  if (document?.end == null) return undefined;
  const blocking = requests.filter(({ renderBlocking, end }) => renderBlocking && end !== null);
  if (blocking.length === 0) return undefined;
  const earliest = min(blocking.map(({ end }) => end!));
  const links = blocking.filter(
    ({ start, end }) => end! > earliest && earliest <= start + together,
  );
  const last = links.reduce<(typeof links)[number] | undefined>(
    (latest, request) => (latest && latest.end! >= request.end! ? latest : request),
    undefined,
  );
  if (!last) return undefined;
  const found = new Set(links);
  const direct = blocking.filter((request) => !found.has(request)).map(({ end }) => end!);
  const paintable = max([document.end, ...direct]);
  const cost = last.end! - paintable;
  if (cost <= 0) return undefined;
  return {
    id: 'blocking-chain',
    message: `blocks rendering, and is found only when another that blocks is there: the first paint waits ${timeText(cost)} longer`,
    url: last.url,
    cost,
    late: false,
  };
};
