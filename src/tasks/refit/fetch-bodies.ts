import pLimit from 'p-limit';
import { hostOf } from '../../core/address/address.js';
import { messageOf } from '../../core/base/errors.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import { contentHashOf } from '../../images/hash.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';

/** The number of files requested at the same time. */
const atOnce = 4;

/** After so many files in a row a host that does not answer is asked no more: the others would take minutes to say the same. */
const mostUnanswered = 8;

/**
 * Fetches the images of a survey again whose bodies the workspace does not have, and keeps those that are still the
 * same to the byte.
 *
 * @param fetch asks for an address; tells its status and body
 * @returns why a file could not be had, by content hash
 */
export async function fetchBodies(
  workspace: Workspace,
  head: SurveyHead,
  fetch: (url: string) => Promise<FetchedFile>,
  { signal, onProgress = noProgress }: TaskOptions,
): Promise<Map<string, string>> {
  const { files, responses } = workspace.pages.read(head);
  const missing = new Set(
    files
      .filter(({ problem, contentHash }) => problem === null && !workspace.bodies.has(contentHash))
      .map(({ contentHash }) => contentHash),
  );
  const addresses = new Map<string, string>();
  for (const { contentHash, url, thirdParty } of responses.answers)
    if (contentHash !== null && missing.has(contentHash) && !thirdParty && /^https?:/.test(url))
      addresses.set(contentHash, url);
  const limit = pLimit(atOnce);
  const reasons = new Map<string, string>();
  const silence = new Map<string, { readonly files: number; readonly reason: string }>();
  const reasonFor = async (contentHash: string, url: string) => {
    const host = hostOf(url);
    const before = silence.get(host);
    if (before && before.files >= mostUnanswered) return before.reason;
    const { reason, isAnswer } = await fetchOne(workspace, contentHash, () => fetch(url));
    if (isAnswer || reason === null) silence.delete(host);
    else silence.set(host, { files: (silence.get(host)?.files ?? 0) + 1, reason });
    return reason;
  };
  const total = addresses.size;
  let done = 0;
  await Promise.all(
    [...addresses].map(([contentHash, url]) =>
      limit(async () => {
        if (signal?.aborted) return;
        const reason = await reasonFor(contentHash, url);
        if (reason !== null) reasons.set(contentHash, reason);
        onProgress({ stage: 'bodies', done: ++done, total, doing: url });
      }),
    ),
  );
  return reasons;
}

interface Outcome {
  /** Why the file could not be had; `null` if it could. */
  readonly reason: string | null;
  /** Whether the host answered at all. */
  readonly isAnswer: boolean;
}

async function fetchOne(
  { bodies }: Workspace,
  contentHash: string,
  fetch: () => Promise<FetchedFile>,
): Promise<Outcome> {
  let answer: FetchedFile;
  try {
    answer = await fetch();
  } catch (error) {
    return { reason: `it could not be fetched again: ${messageOf(error)}`, isAnswer: false };
  }
  const { status, body } = answer;
  const isAnswer = true;
  if (status !== 200)
    return { reason: `it could not be fetched again: the server returned ${status}`, isAnswer };
  if (contentHashOf(body) !== contentHash)
    return { reason: 'it has changed since the survey', isAnswer };
  await bodies.keep(contentHash, body);
  return { reason: null, isAnswer };
}
