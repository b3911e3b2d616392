import type { NamingFile, PictureUse } from '../../core/survey/picture-use.js';
import { messageOf } from '../../core/base/errors.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import type { Trace } from '../progress.js';

/** The most bytes that are read of a feed or a manifest; what comes later is not known. */
export const maxNamingBytes = 4 * 1024 * 1024;

/** The most that are fetched for one survey: a content system may offer a feed of the comments on every page. */
const maxFiles = 100;

type Named = Omit<PictureUse, 'page'>;

export interface NamingOptions {
  readonly fetch: (url: string) => Promise<FetchedFile>;
  /** Why an address must not be asked for; absent if it may. */
  readonly refusal: (url: string) => Promise<string | undefined>;
  readonly onTrace: Trace;
}

/** Fetches the feeds and manifests of a site, each once, for the pictures that they name. */
export class NamingFiles {
  readonly #options: NamingOptions;
  readonly #known = new Set<string>();

  constructor(options: NamingOptions) {
    this.#options = options;
  }

  /**
   * The pictures named by those files that no page before has pointed to.
   *
   * @param page only files of its own origin are fetched
   */
  async namedFirst(page: string, files: readonly NamingFile[]): Promise<readonly Named[]> {
    const { origin } = new URL(page);
    const fresh = files.filter(({ url }) => {
      const isFresh = new URL(url).origin === origin && !this.#known.has(url);
      if (!isFresh || this.#known.size >= maxFiles) return false;
      this.#known.add(url);
      return true;
    });
    const { onTrace } = this.#options;
    const named = fresh.map((file) =>
      this.#fetched(file).catch((error: unknown) => {
        onTrace('a file could not be fetched', { url: file.url, problem: messageOf(error) });
        return [];
      }),
    );
    return (await Promise.all(named)).flat();
  }

  async #fetched(file: NamingFile): Promise<readonly Named[]> {
    const { fetch, refusal, onTrace } = this.#options;
    const refused = await refusal(file.url);
    if (refused !== undefined) throw new Error(refused);
    const { status, body } = await fetch(file.url);
    if (status < 200 || status >= 300) throw new Error(`it returned ${status}`);
    // Few pages have any: who has none is spared the parsers.
    const { picturesNamedBy } = await import('../../crawl/naming-file.js');
    const pictures = picturesNamedBy(file, body.toString('utf8'));
    onTrace('read for pictures', { url: file.url, pictures: pictures.length });
    return pictures.map((url) => ({ kind: file.kind, url }));
  }
}
