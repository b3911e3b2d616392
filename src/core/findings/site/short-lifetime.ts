import { hostOf } from '../../address/address.js';
import type { Resource } from '../../survey/resource.js';
import { siteFinding } from './site-case.js';

const day = 86_400;
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
  describe: ({ seconds, hasValidator, transferBytes }, { bytes }) => {
    const kept = seconds === null ? 'has no lifetime in caches' : `may be kept ${inWords(seconds)}`;
    const cost = hasValidator
      ? 'a second visit asks for it again'
      : `a second visit loads its ${bytes(transferBytes)} again, because it has no validator (etag, last-modified) either`;
    return `${kept}: ${cost}`;
  },
});

/**
 * Seconds for which a browser may use what it has (RFC 9111, section 4.2.1).
 *
 * @returns `null` where nothing is said; `undefined` where it is said by a date alone, and nobody noted when
 */
function lifetimeOf({ headers }: Pick<Resource, 'headers'>): number | null | undefined {
  const control = (headers['cache-control'] ?? '').toLowerCase();
  if (/\bno-(?:store|cache)\b/.test(control)) return 0;
  const age = /\bmax-age\s*=\s*"?(\d{1,10})/.exec(control)?.[1];
  if (age !== undefined) return Number(age);
  if (headers.expires === undefined) return null;
  // Anything that is no date means that it has expired (section 5.3).
  const isDate = /[a-z]/i.test(headers.expires) && !Number.isNaN(Date.parse(headers.expires));
  return isDate ? undefined : 0;
}

function inWords(seconds: number): string {
  if (seconds === 0) return 'by no cache';
  if (seconds < 3_600) return `for ${Math.round(seconds / 60)} min`;
  return seconds < day
    ? `for ${Math.round(seconds / 3_600)} h`
    : `for ${Math.round(seconds / day)} d`;
}
