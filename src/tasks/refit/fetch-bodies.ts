import pLimit from 'p-limit';
import { messageOf } from '../../core/base/errors.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import { contentHashOf } from '../../images/hash.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';

/** The number of files requested at the same time. */
const atOnce = 4;

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
  const total = addresses.size;
  let done = 0;
  await Promise.all(
    [...addresses].map(([contentHash, url]) =>
      limit(async () => {
        if (signal?.aborted) return;
        const reason = await fetchOne(workspace, contentHash, () => fetch(url));
        if (reason !== null) reasons.set(contentHash, reason);
        onProgress({ stage: 'bodies', done: ++done, total, doing: url });
      }),
    ),
  );
  return reasons;
}

async function fetchOne(
  { bodies }: Workspace,
  contentHash: string,
  fetch: () => Promise<FetchedFile>,
): Promise<string | null> {
  try {
    const { status, body } = await fetch();
    if (status !== 200) return `it could not be fetched again: the server returned ${status}`;
    if (contentHashOf(body) !== contentHash) return 'it has changed since the survey';
    await bodies.keep(contentHash, body);
    return null;
  } catch (error) {
    return `it could not be fetched again: ${messageOf(error)}`;
  }
}
