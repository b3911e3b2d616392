import type { Element } from 'domhandler';
import { keptAddress } from '../../../core/address/address.js';
import type { RequestChanges } from '../../../core/load/changed-model.js';
import type { Run } from '../../../core/load/session.js';
import { parseSrcset } from '../../../core/slots/srcset.js';
import type { PlacementSize } from '../../../core/trial/moved-placements.js';
import type { StoredBody } from '../../../core/trial/read-recording.js';
import type { RecordedResponse, Recording } from '../../../core/trial/recording.js';
import { withBody } from '../../../core/trial/recording.js';
import type { View } from '../../../core/visitors/view.js';
import { HtmlEdits } from '../../../texts/html-edits.js';
import type { RefitToTry } from '../refit-to-try.js';

/** What fixes may use. */
export interface FixTools {
  /** A stored body, by its hash. */
  readonly read: (hash: string) => Promise<Buffer>;
  /** Stores a body. */
  readonly keep: (body: Buffer) => Promise<StoredBody>;
  /** The refit that is tried; `null` for none. */
  readonly refit: RefitToTry | null;
  /** A folder of files that a person made by hand; `null` for none. */
  readonly files: string | null;
  /** Hosts that are to be done without. */
  readonly hosts: readonly string[];
}

/** How a page is laid out where its loads are predicted. */
export interface PageLayout {
  readonly placements: readonly PlacementSize[];
  readonly view: Pick<View, 'width' | 'height' | 'density'>;
}

/** A recording after a fix. */
export interface FixOutcome {
  readonly recording: Recording;
  /** How much of it was changed: elements, files, hosts. */
  readonly changed: number;
  /** What could not be done, or has to be known, in words. */
  readonly notes: readonly string[];
  /** What becomes of requests, where that is more than the bytes of files; absent where it cannot be told beforehand. */
  readonly requests?: (layout: PageLayout) => RequestChanges;
}

/** Something that can be tried on a recording. To add one, add a file and a line in `index.ts`. */
export interface Fix {
  /** What it is called by in a call. */
  readonly name: string;
  /** What it does, in a few words. */
  readonly title: string;
  /** What `changed` counts: `element`, `file`. */
  readonly unit: string;
  /** Whether all that it does is that files weigh less, or are gone. */
  readonly isOfBytes: boolean;
  /** Whether it is tried where nobody says which. */
  readonly isUsual: (tools: FixTools) => boolean;
  apply(recording: Recording, tools: FixTools): Promise<FixOutcome>;
}

/** Changes each response of a recording that a fix is for. */
export async function changeEach(
  recording: Recording,
  isMeant: (response: RecordedResponse) => boolean,
  change: (response: RecordedResponse) => Promise<RecordedResponse | null>,
): Promise<{ recording: Recording; changed: number }> {
  let changed = 0;
  const responses: RecordedResponse[] = [];
  for (const response of recording.responses) {
    const other = isMeant(response) ? await change(response) : null;
    if (other) changed++;
    responses.push(other ?? response);
  }
  return { recording: { ...recording, responses }, changed };
}

/** Whether a response has a body of a type that is read here. */
export function hasBody({ request, bodyHash }: RecordedResponse): boolean {
  return bodyHash !== null && request.status >= 200 && request.status < 300;
}

/** Edits the documents of a recording. Bytes that are no UTF-8 stay as they are, too. */
export async function editDocuments(
  recording: Recording,
  tools: FixTools,
  edit: (document: HtmlEdits, url: string, run: Run) => number,
): Promise<{ recording: Recording; changed: number }> {
  let total = 0;
  const outcome = await changeEach(
    recording,
    (response) => hasBody(response) && response.request.type === 'html',
    async (response) => {
      const bytes = await tools.read(response.bodyHash!);
      const text = bytes.toString('utf8');
      const encoding = Buffer.from(text).equals(bytes) ? 'utf8' : 'latin1';
      const document = new HtmlEdits(encoding === 'utf8' ? text : bytes.toString('latin1'));
      const changed = edit(document, response.request.url, recording.run);
      if (changed === 0) return null;
      total += changed;
      return withBody(response, await tools.keep(Buffer.from(document.toString(), encoding)));
    },
  );
  return { ...outcome, changed: total };
}

/** The addresses that an image may be fetched from, those of its `<picture>` included. */
export function addressesOf(image: Element, base: string): Set<string> {
  const { parent } = image;
  const isPicture = parent && 'name' in parent && parent.name === 'picture';
  const elements = isPicture ? parent.children.filter((one) => 'attribs' in one) : [image];
  const named = elements.flatMap(({ attribs: { src, srcset = '' } }) => [
    ...(src ? [src] : []),
    ...parseSrcset(srcset).map(({ url }) => url),
  ]);
  return new Set(named.map((address) => keptAddress(resolved(address, base))));
}

/** An address in a document as the browser reads it; an empty text for what is none. */
export function resolved(address: string | undefined, base: string): string {
  return address && URL.canParse(address, base) ? new URL(address, base).href : '';
}
