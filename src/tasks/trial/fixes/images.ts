import { keptAddress } from '../../../core/address/address.js';
import { withHeader } from '../../../core/trial/recording.js';
import type { RecordedResponse } from '../../../core/trial/recording.js';
import { hasBody } from './fix.js';
import type { Fix } from './fix.js';

export const images: Fix = {
  name: 'images',
  title: 'refitted files in place of the originals',
  unit: 'file',
  isOfBytes: true,
  isUsual: ({ refit }) => refit !== null,
  apply: async (recording, { refit, keep }) => {
    if (!refit)
      return { recording, changed: 0, notes: ['needs a refit: give its folder with --refit'] };
    const known = new Map(
      recording.responses.filter(hasBody).map((response) => [response.request.url, response]),
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
    // A file may take the place of its original under the same name.
    const fresh = new Set(added.map(({ request }) => request.url));
    const responses = recording.responses
      .map((response) => replaced.get(response) ?? response)
      .filter(({ request }) => !fresh.has(request.url));
    return {
      recording: { ...recording, responses: [...responses, ...added] },
      changed: replaced.size,
      notes: [
        ...(other > 0
          ? [
              other === 1
                ? '1 image has changed since the survey of the refit, and stays as it is'
                : `${other} images have changed since the survey of the refit, and stay as they are`,
            ]
          : []),
        ...(replaced.size === 0 && other === 0
          ? ['the page shows no image that the refit has a file for: is it the refit of this site?']
          : []),
      ],
    };
  },
};

/** A new file on the server of an original, sent as that is. */
function fileLike(
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
