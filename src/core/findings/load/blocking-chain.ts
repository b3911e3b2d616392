import { max, min } from 'simple-statistics';
import type { PageRequest } from '../../load/request.js';
import { loadFinding } from './load-case.js';

/** Two requests that start within this time of one another were found together. */
const together = 30;

/** Requests that hold back the first paint one after another: each is found only when the one before is there. */
export const blockingChain = loadFinding({
  id: 'blocking-chain',
  title: 'blocking requests that are found one after another',
  doer: 'markup',
  fix: 'Link to the file from the HTML instead of importing it, or preload it.',
  isWork: false,
  docs: {
    meaning: 'Requests that block rendering are found one after another.',
    why: 'Nothing is drawn before the last one.',
    computed:
      'By the initiators of blocking requests; the cost is what the later ones take beyond the first.',
    ignore: 'Where the chain is short and its files are tiny.',
  },
  check: ({ requests, document }) => {
    if (document?.end == null) return [];
    const blocking = requests.filter(({ renderBlocking, end }) => renderBlocking && end !== null);
    if (blocking.length === 0) return [];
    const earliest = min(blocking.map(({ end }) => end!));
    const links = blocking.filter(
      ({ start, end }) => end! > earliest && earliest <= start + together,
    );
    const last = links.reduce<PageRequest | undefined>(
      (latest, request) => (latest && latest.end! >= request.end! ? latest : request),
      undefined,
    );
    if (!last) return [];
    const found = new Set(links);
    const direct = blocking.filter((request) => !found.has(request)).map(({ end }) => end!);
    const delay = last.end! - max([document.end, ...direct]);
    if (delay <= 0) return [];
    return [{ data: { delay }, url: last.url, cost: delay, late: false }];
  },
  describe: ({ delay }, { time }) =>
    `blocks rendering, and is found only when another blocking file has arrived: it delays the first paint by ${time(delay)}`,
});
