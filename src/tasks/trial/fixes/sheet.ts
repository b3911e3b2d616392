import { keptAddress } from '../../../core/address/address.js';
import type { RequestChange } from '../../../core/load/changed-model.js';
import { withBody } from '../../../core/trial/recording.js';
import type { RecordedResponse, Recording } from '../../../core/trial/recording.js';
import { rebased } from '../../../texts/style-imports.js';
import type { TriedSheet } from '../refit-to-try.js';
import { addressesOf, editDocuments, hasBody } from './fix.js';
import type { Fix, FixTools } from './fix.js';
import { fileLike } from './refit-files.js';
import { absentNote, addRules } from './snippet-attributes.js';

export const sheet: Fix = {
  name: 'sheet',
  title: 'small images joined to one, as the refit has them',
  unit: 'element',
  isOfBytes: false,
  isUsual: ({ refit }) => refit !== null && refit.sheets.length > 0,
  apply: async (recording, tools) => {
    const sheets = tools.refit?.sheets ?? [];
    if (sheets.length === 0)
      return {
        ...{ recording, changed: 0 },
        notes: ['needs a refit with a sheet: make one with refit --sheet'],
      };
    let result = recording;
    let total = 0;
    let absent = 0;
    const requests = new Map<string, RequestChange | 'gone'>();
    for (const one of sheets) {
      const { recording: next, changed, images, missing } = await joinImages(result, one, tools);
      total += changed;
      absent += missing;
      result = next;
      for (const url of images) requests.set(url, 'gone');
      // The sheet comes as early as the first of them did, in the format that is smaller.
      const bytes = await smallest(one, tools);
      if (images[0] !== undefined) requests.set(images[0], { bytes });
    }
    return {
      ...{ recording: result, changed: total, notes: absentNote(absent) },
      requests: () => requests,
    };
  },
};

interface JoinedImages {
  readonly recording: Recording;
  /** Elements that were replaced. */
  readonly changed: number;
  /** The addresses that they may have been fetched from. */
  readonly images: readonly string[];
  /** Elements that are not in the document as it was sent. */
  readonly missing: number;
}

/** Puts the elements of a sheet in place of images, with its styles and its files. */
async function joinImages(
  recording: Recording,
  { style, files, elements }: TriedSheet,
  tools: FixTools,
): Promise<JoinedImages> {
  const refit = tools.refit!;
  const address = refit.addressOf(style, recording.page);
  const rules = rebased((await refit.read(style)).toString('utf8'), address);
  const own = ownStyleSheet(recording);
  const images: string[] = [];
  let missing = 0;
  const { recording: edited, changed } = await editDocuments(recording, tools, (document, url) => {
    let replaced = 0;
    for (const { selector, text } of elements.filter(({ page }) => page === url)) {
      const [element] = document.find(selector);
      if (element?.name !== 'img') {
        missing++;
        continue;
      }
      const { parent } = element;
      const isPicture = parent && 'name' in parent && parent.name === 'picture';
      document.replace(isPicture ? parent : element, text);
      images.push(...addressesOf(element, url));
      replaced++;
    }
    if (replaced > 0 && !own) addRules(document, rules);
    return replaced;
  });
  if (changed === 0) return { recording, changed, images, missing };
  const [document] = recording.responses.filter(hasBody);
  const added: RecordedResponse[] = [];
  for (const { path, mediaType } of files) {
    const stored = await tools.keep(await refit.read(path));
    added.push(fileLike(document!, refit.addressOf(path, recording.page), mediaType, stored));
  }
  const styled = own && (await withRules(own, rules, tools));
  const fresh = new Set(added.map(({ request }) => request.url));
  const responses = edited.responses
    .filter(({ request }) => !fresh.has(request.url))
    .map((response) => (response === own && styled ? styled : response));
  return {
    recording: { ...edited, responses: [...responses, ...added] },
    changed,
    images,
    missing,
  };
}

/** The first style sheet on the page's own host: new styles belong there, and need no request of their own. */
function ownStyleSheet({ page, responses }: Recording): RecordedResponse | undefined {
  const { origin } = new URL(keptAddress(page));
  return responses.find(
    (response) =>
      hasBody(response) &&
      response.request.type === 'style' &&
      response.request.url.startsWith(`${origin}/`),
  );
}

async function withRules(
  response: RecordedResponse,
  rules: string,
  { read, keep }: FixTools,
): Promise<RecordedResponse> {
  const text = await read(response.bodyHash!);
  return withBody(response, await keep(Buffer.concat([text, Buffer.from(`\n${rules}`)])));
}

/** Bytes of the smaller of the files at the density that most screens have, one. */
async function smallest({ files }: TriedSheet, { refit }: FixTools): Promise<number> {
  const single = files.filter(({ path }) => !path.includes('@2x'));
  const bodies = await Promise.all(single.map(({ path }) => refit!.read(path)));
  return Math.min(...bodies.map(({ length }) => length));
}
