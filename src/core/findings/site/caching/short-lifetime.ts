import { hostOf, pathOf } from '../../../address/address.js';
import { fileFinding, isStatic } from '../site-case.js';
import { day, lifetimeOf, lifetimeWords } from './lifetime.js';

/** What is kept for a week is there for most visitors who come back. */
const enough = 7 * day;
/** What changes its name with its content may be kept for ever; half a year is meant as much. */
const enoughForHashed = 180 * day;

/** A hash in a name: eight and more hexadecimal digits, of which some are digits. */
const hashed = /[._-](?=[a-f]*\d)[0-9a-f]{8,64}(?=[._-])/i;

/** A static file that browsers may not keep, or not for long. */
export const shortLifetime = fileFinding({
  id: 'short-lifetime',
  title: 'static file with a short lifetime in caches',
  doer: 'server',
  fix: 'Let browsers keep it: cache-control: max-age=31536000, immutable where its name changes with its content, a week or more elsewhere.',
  isWork: true,
  docs: {
    meaning:
      'A style sheet, a script, a font or an image of the site may be kept for less than a week, or nothing is said; half a year where its name has a hash of its content.',
    why: 'Who comes back loads it again, or asks for it again, though it has not changed.',
    computed:
      'By cache-control (RFC 9111); a date in expires alone is not judged. Where the survey before it found the same content at the address, that is told. Images of a host with the same lifetime are one finding. It costs nothing on a first visit: clock --warm measures the second one.',
    ignore: 'Where the file must change for everybody at once and its name cannot.',
  },
  step: () => 'let browsers keep it: a year if its name changes with its content, else a week',
  checkFile: ({ resource }, { servedHere, sameIn }) => {
    const { url, type, status, transferBytes } = resource;
    const host = hostOf(url);
    if (!isStatic(resource) || resource.thirdParty || status !== 200 || servedHere.has(host))
      return undefined;
    const seconds = lifetimeOf(resource);
    const hasHash = hashed.test(pathOf(url).split('/').at(-1)!);
    if (seconds === undefined) return undefined;
    if (seconds !== null && seconds >= (hasHash ? enoughForHashed : enough)) return undefined;
    const again = resource.headers.etag ?? resource.headers['last-modified'] ?? null;
    const data = {
      ...{ url, seconds, hasValidator: again !== null, hasHash, transferBytes },
      sameIn: sameIn(resource),
    };
    // What a second visit would save is in the evidence.
    const alike = JSON.stringify([host, seconds, data.hasValidator, hasHash]);
    return { data, bytes: null, ...(type === 'image' && { together: alike }) };
  },
  describe: ({ seconds, hasValidator, hasHash, transferBytes, sameIn }, { bytes, count }) => {
    const known = [
      ...(hasHash ? ['its name changes with its content'] : []),
      ...(sameIn === null ? [] : [`it was the same in ${sameIn}`]),
    ];
    const though = known.length > 0 ? `, though ${known.join(' and ')}` : '';
    const kept = inWords(seconds, count);
    const cost = hasValidator
      ? 'a second visit asks for it again'
      : `a second visit loads its ${bytes(transferBytes)} again, because it has no validator (etag, last-modified) either`;
    return `${kept}${though}: ${cost}`;
  },
});

function inWords(seconds: number | null, count: (number: number, one: string) => string): string {
  if (seconds === null) return 'has no lifetime in caches';
  return seconds === 0
    ? 'must not be used without asking the server'
    : `may be kept for ${lifetimeWords(seconds, count)}`;
}
