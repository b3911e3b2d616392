import pLimit from 'p-limit';
import { hostOf } from '../../core/address/address.js';
import type { Policy } from '../../core/policy/policy.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import { offersOwnWidths, ownCandidates } from '../../core/refit/plan/own-widths.js';
import type { Encoded } from '../../core/survey/encoded.js';
import type { ImageFile } from '../../core/survey/image-file.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import { encodeKey } from '../../images/encode-key.js';
import { readImageFacts } from '../../images/facts.js';
import type { Workspace } from '../../store/workspace.js';
import { refitResult } from '../survey/refit-result.js';
import { encodeAndKeep } from '../survey/encode-file.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';

/** A candidate of a `srcset` that no view of the survey chose. */
export interface CandidateFile {
  readonly url: string;
  readonly file: ImageFile;
  readonly encoded: Encoded;
}

/** The number of files requested at the same time. */
const atOnce = 4;
/** The most candidates that are asked for. */
const mostCandidates = 5_000;
/** A server that fails so often in a row is not asked again. */
const patience = 5;

/**
 * Fetches the candidates of the site's own `srcset` that no view of the survey chose, and encodes each at its own width:
 * other screens choose them, and these views may, once `sizes` are right.
 *
 * @returns those that arrived and can be read
 */
export async function fetchCandidates(
  workspace: Workspace,
  images: readonly RankedImage[],
  policy: Policy,
  fetch: (url: string) => Promise<FetchedFile>,
  { signal, onProgress = noProgress }: TaskOptions,
): Promise<CandidateFile[]> {
  const due = missingCandidates(images).slice(0, mostCandidates);
  const limit = pLimit(atOnce);
  let done = 0;
  let failures = 0;
  const found = await Promise.all(
    due.map((url) =>
      limit(async (): Promise<CandidateFile[]> => {
        if (signal?.aborted || failures >= patience) return [];
        const candidate = await fetchOne(workspace, url, policy, fetch).catch(() => undefined);
        failures = candidate === undefined ? failures + 1 : 0;
        onProgress({ stage: 'bodies', done: ++done, total: due.length, doing: url });
        return candidate ? [candidate] : [];
      }),
    ),
  );
  return found.flat();
}

function missingCandidates(images: readonly RankedImage[]): string[] {
  const own = images.filter(({ thirdParty }) => !thirdParty);
  const known = new Set(own.flatMap(({ urls }) => urls));
  const hosts = new Set([...known].map(hostOf));
  const candidates = own.flatMap(({ placed }) =>
    placed.filter((one) => one.shown && offersOwnWidths(one)).flatMap(ownCandidates),
  );
  const urls = new Set(candidates.map(({ url }) => url));
  return [...urls].filter((url) => !known.has(url) && hosts.has(hostOf(url))).sort();
}

/** `null` for a body that is no still picture. */
async function fetchOne(
  workspace: Workspace,
  url: string,
  policy: Policy,
  fetch: (url: string) => Promise<FetchedFile>,
): Promise<CandidateFile | null> {
  const { status, body } = await fetch(url);
  if (status !== 200) return null;
  const file = await readImageFacts(body, 'application/octet-stream');
  if (file.problem !== null || file.frames !== 1 || !file.intrinsic) return null;
  workspace.images.add(file);
  await workspace.bodies.keep(file.contentHash, body);
  const kept = workspace.encodes.get(file.contentHash, file.intrinsic, encodeKey(policy));
  const before = refitResult(workspace, file, file.intrinsic, policy);
  if (before) return { url, file, encoded: before };
  const isWhole = kept && (kept.resultHash === null || workspace.bodies.has(kept.resultHash));
  const encoded = isWhole ? kept : await encodeAndKeep(workspace, file, file.intrinsic, policy);
  return { url, file, encoded };
}
