import { hostOf } from '../../address/address.js';
import { day, lifetimeOf, lifetimeWords } from './lifetime.js';
import { siteFinding } from './site-case.js';

/** What is kept for a week is there for most visitors who come back. */
const enough = 7 * day;

/** A style sheet, a script or a font that browsers may not keep, or not for long. */
export const shortLifetime = siteFinding({
  id: 'short-lifetime',
  title: 'static file with a short lifetime in caches',
  doer: 'server',
  fix: 'Let browsers keep it: cache-control: max-age=31536000, immutable where its name changes with its content, a week or more elsewhere.',
  isWork: true,
  step: () => 'let browsers keep it: a year if its name changes with its content, else a week',
  check: ({ resource }, { servedHere }) => {
    const { url, type, status, transferBytes } = resource;
    const isStatic = type === 'style' || type === 'script' || type === 'font';
    if (!isStatic || resource.thirdParty || status !== 200 || servedHere.has(hostOf(url)))
      return undefined;
    const seconds = lifetimeOf(resource);
    if (seconds === undefined || (seconds !== null && seconds >= enough)) return undefined;
    // It costs nothing on a first visit: what a second one would save is in the evidence.
    const again = resource.headers.etag ?? resource.headers['last-modified'] ?? null;
    const data = { url, seconds, hasValidator: again !== null, transferBytes };
    return { data, bytes: null };
  },
  describe: ({ seconds, hasValidator, transferBytes }, { bytes, count }) => {
    const kept = inWords(seconds, count);
    const cost = hasValidator
      ? 'a second visit asks for it again'
      : `a second visit loads its ${bytes(transferBytes)} again, because it has no validator (etag, last-modified) either`;
    return `${kept}: ${cost}`;
  },
});

function inWords(seconds: number | null, count: (number: number, one: string) => string): string {
  if (seconds === null) return 'has no lifetime in caches';
  return seconds === 0
    ? 'must not be used without asking the server'
    : `may be kept for ${lifetimeWords(seconds, count)}`;
}
