import { keptAddress } from '../../../core/address/address.js';
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

/** @throws UsageError when a file is not the one that the refit wrote. */
export async function refitFiles(
  { responses }: Recording,
  refit: RefitToTry,
  keep: FixTools['keep'],
): Promise<RefitFiles> {
  const known = new Map(
    responses.filter(hasBody).map((response) => [response.request.url, response]),
  );
  const replaced = new Map<RecordedResponse, RecordedResponse>();
  const added: RecordedResponse[] = [];
  let other = 0;
  for (const { from, to, files } of refit.rewrites) {
    const original = known.get(keptAddress(from));
    if (!original) continue;
    const hash = refit.originals.get(from);
    if (hash !== undefined && hash !== original.bodyHash) {
      other++;
      continue;
    }
    for (const { path, mediaType } of files) {
      const stored = await keep(await refit.read(path));
      const file = fileLike(original, refit.addressOf(path, from), mediaType, stored);
      added.push(file);
      if (path === to)
        replaced.set(original, {
          ...file,
          request: { ...file.request, url: original.request.url },
        });
    }
  }
  return { added, replaced, other };
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
