import { messageOf } from '../../core/base/errors.js';
import { formatSize } from '../../core/base/size.js';
import type { ImageFile } from '../../core/survey/image-file.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import { readImageFacts } from '../../images/facts.js';
import type { Workspace } from '../../store/workspace.js';
import { noTrace } from '../progress.js';
import type { Trace } from '../progress.js';

/** How a site is asked for files that nobody has seen yet. */
export interface AskSite {
  readonly fetch: (url: string) => Promise<FetchedFile>;
  /** Why an address must not be asked for; `undefined` if it may be. */
  readonly refusal: (url: string) => Promise<string | undefined>;
}

/** A host that has none of so many files in a row is not asked for more. */
const patience = 8;
/** The most files that are asked for, and bytes that they may have together. */
const most = { files: 1_000, bytes: 1e9 } as const;

/** Pictures that a site may have where their names point to; each is asked for once, and kept. */
export class SiteFiles {
  readonly #workspace: Workspace;
  readonly #ask: AskSite;
  readonly #onTrace: Trace;
  readonly #asked = new Map<string, Promise<ImageFile | null>>();
  /** Files that a host did not have, in a row, by origin. */
  readonly #misses = new Map<string, number>();
  #bytes = 0;

  constructor(workspace: Workspace, ask: AskSite, onTrace: Trace = noTrace) {
    this.#workspace = workspace;
    this.#ask = ask;
    this.#onTrace = onTrace;
  }

  /** The file at an address; `null` where there is none that can be read, or that may be asked for. */
  get(url: string): Promise<ImageFile | null> {
    const known = this.#asked.get(url);
    if (known) return known;
    const { origin } = new URL(url);
    const isEnough = this.#asked.size >= most.files || this.#bytes >= most.bytes;
    if (isEnough || (this.#misses.get(origin) ?? 0) >= patience) return Promise.resolve(null);
    const asked = this.#fetch(url)
      .catch(messageOf)
      .then((found) => {
        const outcome = typeof found === 'string' ? found : formatSize(found.intrinsic!);
        this.#onTrace('asked for a larger file', { url, outcome });
        return typeof found === 'string' ? null : found;
      });
    this.#asked.set(url, asked);
    void asked.then((file) =>
      this.#misses.set(origin, file ? 0 : (this.#misses.get(origin) ?? 0) + 1),
    );
    return asked;
  }

  /** The file, or in words why there is none. */
  async #fetch(url: string): Promise<ImageFile | string> {
    const refusal = await this.#ask.refusal(url);
    if (refusal !== undefined) return refusal;
    const { status, body } = await this.#ask.fetch(url);
    this.#bytes += body.length;
    if (status !== 200) return `the server returned ${status}`;
    const file = await readImageFacts(body, 'application/octet-stream');
    if (file.problem !== null || !file.intrinsic) return file.problem ?? 'it has no pixels';
    this.#workspace.images.add(file);
    await this.#workspace.bodies.keep(file.contentHash, body);
    return file;
  }
}
