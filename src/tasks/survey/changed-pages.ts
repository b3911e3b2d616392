import pLimit from 'p-limit';
import { messageOf } from '../../core/base/errors.js';
import type { SkippedAddress, SurveyedPage } from '../../core/survey/survey.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import type { Pacer } from '../../crawl/pacer.js';
import { contentHashOf } from '../../images/hash.js';
import type { Progress } from '../progress.js';
import type { KeptFile } from './kept-files.js';

/** Asks a server for a file, with headers of this request alone. */
export type Ask = (url: string, headers?: Readonly<Record<string, string>>) => Promise<FetchedFile>;

export interface ChangeQuestions {
  readonly pages: readonly SurveyedPage[];
  readonly files: readonly KeptFile[];
  /** When the earlier survey began, ISO 8601. */
  readonly startedAt: string;
  /** When pages were last changed, as sitemaps say, by address. */
  readonly modified: ReadonlyMap<string, string>;
  readonly ask: Ask;
  readonly pacer: Pacer;
  /** Questions at the same time. */
  readonly atOnce: number;
  readonly onProgress: (progress: Progress) => void;
  readonly signal?: AbortSignal | undefined;
}

/** The pages that may have changed since an earlier survey, each with the reason, and how many files were asked about. */
export interface ChangedPages {
  readonly changed: readonly SkippedAddress[];
  readonly asked: number;
}

/** What a browser says it takes. Servers that choose a format by it must not choose another one for a question. */
const accepted = {
  document: 'text/html,application/xhtml+xml,application/xml;q=0.9,image/avif,image/webp,*/*;q=0.8',
  image: 'image/avif,image/webp,image/apng,image/svg+xml,image/*,*/*;q=0.8',
  other: '*/*',
};

/**
 * Finds the pages that may have changed: by the dates of sitemaps; by asking for each document, and for each file of those
 * that are left, whether it is another one (RFC 9110, section 13: If-None-Match, If-Modified-Since), or where there is no
 * validator, by its content.
 */
export async function changedPages(questions: ChangeQuestions): Promise<ChangedPages> {
  const { pages, files, startedAt, modified, signal } = questions;
  const changed = new Map<string, string>();
  const note = (page: string, reason: string) => {
    if (!changed.has(page)) changed.set(page, reason);
  };
  for (const { url, error } of pages) {
    const at = Date.parse(modified.get(url) ?? '');
    if (error !== null) note(url, 'it had a problem then');
    else if (at > Date.parse(startedAt))
      note(url, `the sitemap says that it changed on ${modified.get(url)}`);
  }
  const documents = files.filter(({ isDocument }) => isDocument);
  const told = new Set(documents.flatMap(({ pages: of }) => [...of]));
  for (const { url } of pages) if (!told.has(url)) note(url, 'its document is not known');
  const asker = new Asker(questions);
  // Other files of a page that is visited anyway need no question.
  for (const some of [documents, files.filter(({ isDocument }) => !isDocument)]) {
    const due = some.filter(({ pages: of }) => [...of].some((page) => !changed.has(page)));
    const answers = await asker.askAll(due);
    due.forEach((file, at) => {
      const reason = answers[at];
      if (reason !== undefined) for (const page of file.pages) note(page, reason);
    });
    if (signal?.aborted) break;
  }
  const known = new Set(pages.map(({ url }) => url));
  return {
    changed: [...changed].flatMap(([url, reason]) => (known.has(url) ? { url, reason } : [])),
    asked: asker.asked,
  };
}

/** Asks servers whether files have changed. */
class Asker {
  asked = 0;
  readonly #questions: ChangeQuestions;
  #due = 0;

  constructor(questions: ChangeQuestions) {
    this.#questions = questions;
  }

  /** Why each of some files is another one by now; `undefined` for those that are not. */
  async askAll(files: readonly KeptFile[]): Promise<(string | undefined)[]> {
    const limit = pLimit(this.#questions.atOnce);
    this.#due = this.asked + files.length;
    return Promise.all(files.map((file) => limit(() => this.#askOne(file))));
  }

  async #askOne(file: KeptFile): Promise<string | undefined> {
    const { ask, pacer, signal, onProgress } = this.#questions;
    const { url, isDocument, isImage, headers, contentHash } = file;
    await pacer.turn(url, signal);
    if (signal?.aborted) return undefined;
    onProgress({ stage: 'asking', done: this.asked++, total: this.#due, doing: url });
    const { etag, 'last-modified': lastModified } = headers;
    const kind = isDocument ? 'document' : isImage ? 'image' : 'other';
    try {
      const { status, body } = await ask(url, {
        accept: accepted[kind],
        ...(etag !== undefined && { 'if-none-match': etag }),
        ...(lastModified !== undefined && { 'if-modified-since': lastModified }),
      });
      if (status === 304) return undefined;
      const what = isDocument ? 'its document' : url;
      if (status !== 200) return `${what} answered ${status}`;
      return contentHashOf(body) === contentHash ? undefined : `${what} is another one by now`;
    } catch (error) {
      return `${url} could not be asked for: ${messageOf(error)}`;
    }
  }
}
