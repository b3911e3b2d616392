import { groupBy } from './group-by.js';
import type { PageRequest } from './request.js';
import type { Run } from './session.js';

/** What became of one request between two loads. */
export interface RequestChange {
  readonly before: PageRequest | null;
  readonly after: PageRequest | null;
  /** How the two were found to be the same; `null` of one that is gone or new. */
  readonly by: 'address' | 'name' | 'role' | null;
  /** After less before, on the wire. */
  readonly bytes: number;
  /** After less before: when its last byte was there, in milliseconds; `null` where one side has no end. */
  readonly end: number | null;
}

type Load = Pick<Run, 'requests' | 'largest'>;

/**
 * Pairs the requests of two loads: first by their address; then by their name, without what builds and image
 * services put into it (content hashes, widths, formats); then by what they are to the page (its document, its
 * largest picture). What is left is gone or new. Of several with one name the first belong together, in the order of
 * their starts.
 *
 * @returns in the order of the bytes that were saved, the most first
 */
export function matchRequests(before: Load, after: Load): RequestChange[] {
  const changes: RequestChange[] = [];
  let [left, right] = [inOrder(before.requests), inOrder(after.requests)];
  for (const [by, keyed] of [
    [
      'address',
      () =>
        ({ url }: PageRequest) =>
          url,
    ],
    ['name', () => nameOf],
    ['role', roleIn],
  ] as const) {
    const waiting = groupBy(right, keyed(after));
    const keyOf = keyed(before);
    const taken = new Set<PageRequest>();
    left = left.filter((request) => {
      const key = keyOf(request);
      const other = key === '' ? undefined : waiting.get(key)?.shift();
      if (!other) return true;
      taken.add(other);
      changes.push(changeOf(request, other, by));
      return false;
    });
    right = right.filter((request) => !taken.has(request));
  }
  changes.push(...left.map((request) => changeOf(request, null, null)));
  changes.push(...right.map((request) => changeOf(null, request, null)));
  return changes.sort((a, b) => a.bytes - b.bytes);
}

function changeOf(
  before: PageRequest | null,
  after: PageRequest | null,
  by: RequestChange['by'],
): RequestChange {
  return {
    before,
    after,
    by,
    bytes: (after?.transferBytes ?? 0) - (before?.transferBytes ?? 0),
    end: before?.end == null || after?.end == null ? null : after.end - before.end,
  };
}

function inOrder(requests: readonly PageRequest[]): PageRequest[] {
  return [...requests].sort((a, b) => a.start - b.start);
}

/** Host, folder and stem of an address: no query, no extension, no hash, no width or density in the file's name. */
function nameOf({ url, type }: PageRequest): string {
  if (!URL.canParse(url)) return '';
  const { host, pathname } = new URL(url);
  const stem = pathname
    .replace(/\.[a-z0-9]{2,5}$/i, '')
    .replace(/[-_.](?=[a-z]*\d)[a-z0-9]{6,64}$/i, '')
    .replace(/(?:[-_.]\d{2,4}(?:x\d{2,4}|w|px)?|@\dx)$/i, '')
    .replace(/[-_.](?=[a-z]*\d)[a-z0-9]{6,64}$/i, '');
  return `${type} ${host}${stem}`;
}

/** What a request is to its page; nothing for most. */
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
