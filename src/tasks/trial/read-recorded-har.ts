import { UsageError } from '../../core/base/errors.js';
import type { HarContent } from '../../core/load/har-content.js';
import { readRecording } from '../../core/trial/read-recording.js';
import type { StoredBody } from '../../core/trial/read-recording.js';
import { contentHashOf } from '../../images/hash.js';
import type { Workspace } from '../../store/workspace.js';
import { readHarPages } from '../clock/read-har.js';
import type { RecordedPage } from './record-page.js';

/**
 * The recordings in a HAR file with contents, of whatever origin; its bodies are stored in the workspace.
 *
 * @throws NotFoundError when there is no such file; UsageError when it is no HAR file, or one without bodies.
 */
export async function readRecordedHar(workspace: Workspace, file: string): Promise<RecordedPage[]> {
  const { pages } = await readHarPages(file);
  const recorded: RecordedPage[] = [];
  for (const { page, run, contents } of pages) {
    const stored: (StoredBody | null)[] = [];
    for (const [index, content] of contents.entries())
      stored.push(await storedBody(workspace, content, run.requests[index]!.bodyBytes));
    const recording = readRecording(page, run, contents, stored);
    const missing = recording.responses
      .filter(({ request, bodyHash }) => bodyHash === null && request.bodyBytes > 0)
      .map(({ request }) => ({ url: request.url, reason: 'the file has no body of it' }));
    recorded.push({ recording, file, missing });
  }
  if (recorded.every(({ recording }) => recording.responses.every(({ bodyHash }) => !bodyHash)))
    throw new UsageError(`${file} has no bodies: it cannot be replayed`, {
      hint: 'save it again as "HAR with content", or give the address of the page instead',
    });
  return recorded;
}

async function storedBody(
  { recordedBodies }: Workspace,
  { text, isBase64, bodyHash }: HarContent,
  bytes: number,
): Promise<StoredBody | null> {
  if (bodyHash !== null && recordedBodies.has(bodyHash)) return { hash: bodyHash, bytes };
  if (text === null) return null;
  const body = Buffer.from(text, isBase64 ? 'base64' : 'utf8');
  const hash = contentHashOf(body);
  await recordedBodies.keep(hash, body);
  return { hash, bytes: body.length };
}
