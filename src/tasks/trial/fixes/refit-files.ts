import { hostOf, keptAddress } from '../../../core/address/address.js';
import { withHeader } from '../../../core/trial/recording.js';
import type { RecordedResponse, Recording } from '../../../core/trial/recording.js';
import type { RefitToTry } from '../refit-to-try.js';
import { hasBody } from './fix.js';
import type { FixTools } from './fix.js';

/** The files of a refit that are for images of a recording, as responses. */
export interface RefitFiles {
  /** At their own addresses. */
  readonly added: readonly RecordedResponse[];
  /** What takes the place of each original under its address. */
  readonly replaced: ReadonlyMap<RecordedResponse, RecordedResponse>;
  /** Images that are no longer the ones that were surveyed. */
  readonly other: number;
}

/**
 * @param named addresses that new markup names: a file of the refit that belongs there is found even where the recording, which
 *   has what the browser chose before, has none
 * @throws UsageError when a file is not the one that the refit wrote.
 */
export async function refitFiles(
  { responses }: Recording,
  refit: RefitToTry,
  keep: FixTools['keep'],
  named: ReadonlySet<string> = new Set(),
): Promise<RefitFiles> {
  const known = new Map(
    responses.filter(hasBody).map((response) => [response.request.url, response]),
  );
  const replaced = new Map<RecordedResponse, RecordedResponse>();
  const added: RecordedResponse[] = [];
  let other = 0;
  for (const { from, to, files } of refit.rewrites) {
    const address = keptAddress(from);
    const original = known.get(address) ?? (named.has(address) ? likely(from) : undefined);
    // Another fix may have put the file there already.
    if (!original || files.some(({ path }) => refit.hashOf(path) === original.bodyHash)) continue;
    const isThere = original.request.url === address;
    const hash = refit.originals.get(from);
    if (isThere && hash !== undefined && hash !== original.bodyHash) {
      other++;
      continue;
    }
    for (const { path, mediaType } of files) {
      const stored = await keep(await refit.read(path));
      const file = fileLike(original, refit.addressOf(path, from), mediaType, stored);
      added.push(file);
      if (path !== to) continue;
      const inPlace = { ...file, request: { ...file.request, url: address } };
      if (isThere) replaced.set(original, inPlace);
      else if (file.request.url !== address) added.push(inPlace);
    }
  }
  return { added, replaced, other };

  /** A picture on the same host, whose server will send another one in the same way. */
  function likely(url: string): RecordedResponse | undefined {
    return responses.find(
      (response) =>
        hasBody(response) &&
        response.request.type === 'image' &&
        hostOf(response.request.url) === hostOf(url),
    );
  }
}

/** A new file on the server of an original, sent as that is. */
export function fileLike(
  original: RecordedResponse,
  url: string,
  mediaType: string,
  { hash, bytes }: { readonly hash: string; readonly bytes: number },
): RecordedResponse {
  const typed = withHeader(original, 'content-type', mediaType);
  const plain = withHeader(typed, 'content-length', String(bytes));
  return {
    ...{ ...plain, bodyHash: hash, bodyBytes: bytes, wireBytes: bytes, encoding: 'identity' },
    request: { ...plain.request, url: keptAddress(url), mediaType, bodyBytes: bytes },
  };
}
