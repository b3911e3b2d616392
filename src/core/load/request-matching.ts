import { bareName } from '../address/bare-name.js';
import { matchInTurn } from '../base/matching.js';
import type { PageRequest } from './request.js';
import type { Run } from './session.js';

/** What became of one request between two loads. */
export interface RequestChange {
  readonly before: PageRequest | null;
  readonly after: PageRequest | null;
  /** How the two were matched; `null` for one that is gone or new. */
  readonly by: 'address' | 'name' | 'role' | null;
  /** Whether it is not there because its image is lazy now, and nobody had scrolled to it. */
  readonly putOff: boolean;
  /** After less before, on the wire. */
  readonly bytes: number;
  /** After less before: when its last byte was there, in milliseconds; `null` where one side has no end. */
  readonly end: number | null;
}

type Load = Pick<Run, 'requests' | 'largest' | 'putOff'>;

/**
 * Pairs the requests of two loads: first by their address; then by their name, without what builds and image
 * services put into it (content hashes, widths, formats); then by what they are to the page (its document, its
 * largest picture). What is left is gone or new. Of several with one name the first belong together, in the order of
 * their starts.
 *
 * @returns in the order of the bytes that were saved, the most first
 */
export function matchRequests(before: Load, after: Load): RequestChange[] {
  const address = ({ url }: PageRequest) => url;
  const lazy = new Set((after.putOff ?? []).flatMap((url) => [url, bareName(url)]));
  const isPutOff = ({ url, type }: PageRequest) =>
    type === 'image' && (lazy.has(url) || (bareName(url) !== '' && lazy.has(bareName(url))));
  return matchInTurn(inOrder(before.requests), inOrder(after.requests), [
    { by: 'address' as const, before: address, after: address },
    { by: 'name' as const, before: nameOf, after: nameOf },
    { by: 'role' as const, before: roleIn(before), after: roleIn(after) },
  ])
    .map((match): RequestChange => ({
      ...match,
      ...changeOf(match.before, match.after),
      putOff: match.after === null && match.before !== null && isPutOff(match.before),
    }))
    .sort((a, b) => a.bytes - b.bytes);
}

function changeOf(
  before: PageRequest | null,
  after: PageRequest | null,
): Pick<RequestChange, 'bytes' | 'end'> {
  return {
    bytes: (after?.transferBytes ?? 0) - (before?.transferBytes ?? 0),
    end: before?.end == null || after?.end == null ? null : after.end - before.end,
  };
}

function inOrder(requests: readonly PageRequest[]): PageRequest[] {
  return [...requests].sort((a, b) => a.start - b.start);
}

function nameOf({ url, type }: PageRequest): string {
  const name = bareName(url);
  return name === '' ? '' : `${type} ${name}`;
}

/** The role of a request in its page; nothing for most. */
function roleIn(load: Load): (request: PageRequest) => string {
  const document = inOrder(load.requests).find(
    ({ type, redirectsTo }) => type === 'html' && redirectsTo === '',
  );
  const picture = load.largest?.url;
  return (request) => {
    if (request === document) return 'document';
    return picture != null && request.url === picture ? 'largest' : '';
  };
}
