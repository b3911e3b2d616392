import pLimit from 'p-limit';
import { groupPictures } from '../../core/survey/pictures.js';
import type { ImageFile } from '../../core/survey/image-file.js';
import type { Pictures } from '../../core/survey/pictures.js';
import { picturesAtOnce } from '../../images/at-once.js';
import type { SurveyedFacts } from '../../store/pages.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';

/**
 * Finds out which files of a survey are one picture. Only those are looked at that may be, by their names and by the markup
 * that offers them together; what was looked at once is kept.
 *
 * @param possible sets of files that may be one picture, as `possiblePictures` finds them
 */
export async function picturesOfSurvey(
  workspace: Workspace,
  facts: Pick<SurveyedFacts, 'head' | 'files'>,
  possible: readonly (readonly number[])[],
  { signal, onProgress = noProgress }: TaskOptions = {},
): Promise<Pictures> {
  if (possible.length === 0) return groupPictures(facts, [], () => undefined);
  const known = workspace.fingerprints.ofSurvey(facts.head.id);
  const { bodies, fingerprints } = workspace;
  const due = [...new Set(possible.flat())]
    .map((place) => facts.files[place]!)
    .filter((file) => file.problem === null && !known.has(file.contentHash))
    .filter(({ contentHash }) => bodies.has(contentHash));
  if (due.length > 0) {
    // The decoders take a while to load.
    const { fingerprintOf } = await import('../../images/fingerprint.js');
    const limit = pLimit(picturesAtOnce);
    let done = 0;
    const look = async ({ contentHash, mediaType }: ImageFile) => {
      if (signal?.aborted) return;
      const body = await bodies.readIfSound(contentHash);
      if (body) {
        const pixels = await fingerprintOf(body).catch(() => null);
        fingerprints.add(contentHash, pixels);
        known.set(contentHash, pixels);
      }
      onProgress({ stage: 'looks', done: ++done, total: due.length, doing: mediaType });
    };
    await Promise.all(due.map((file) => limit(() => look(file))));
  }
  return groupPictures(facts, possible, (contentHash) => known.get(contentHash) ?? undefined);
}
