import { LRUCache } from 'lru-cache';
import { breakpointsIn } from '../../core/slots/breakpoints.js';
import type { Breakpoints } from '../../core/slots/breakpoints.js';
import type { StyleRule } from '../../core/survey/style-use.js';
import type { Channel } from '../chromium/channel.js';
import { remembered } from './bodies.js';
import type { NetworkRecorder } from './network-recorder.js';
import { cameFromNetwork, typeOf } from './recorded-request.js';
import type { RecordedRequest } from './recorded-request.js';

/** Takes the body of a text or a font, and returns its content hash. */
export type KeepText = (body: Buffer, kind: TextKind) => string;

/** The rules of a style sheet that was kept, by its content hash; `undefined` where they could not be read in time. */
export type RulesOf = (contentHash: string) => Promise<readonly StyleRule[] | undefined>;

/** What a text is, as far as it matters to what can be made of it. */
export type TextKind = 'html' | 'style' | 'script' | 'data' | 'font';

/** Larger texts are not read. */
const maxTextBytes = 8 * 1024 * 1024;

interface Kept {
  readonly contentHash: string;
  /** Of a style sheet. */
  readonly breakpoints: Breakpoints | undefined;
}

/** Brings the texts out of the browser as they arrive, each address once. Tabs that share a cache share one of these. */
export class TextCollector {
  readonly #keep: KeepText;
  readonly #rulesOf: RulesOf;
  readonly #byAddress = new LRUCache<string, Promise<Kept | undefined>>({ max: remembered });

  constructor(keep: KeepText, rulesOf: RulesOf = () => Promise.resolve(undefined)) {
    this.#keep = keep;
    this.#rulesOf = rulesOf;
  }

  watch(cdp: Channel, recorder: NetworkRecorder): void {
    recorder.onFinished((request) => {
      const kind = kindOf(request);
      const known = this.#byAddress.has(request.url);
      // A document may be another each time; what it refers to is hardly ever.
      if (!kind || (known && (kind !== 'html' || !cameFromNetwork(request)))) return;
      const read = this.#read(cdp, request, kind);
      this.#byAddress.set(request.url, read);
      void read.then((kept) => {
        if (kept === undefined && this.#byAddress.get(request.url) === read)
          this.#byAddress.delete(request.url);
      });
    });
  }

  /** The content hash of the text at an address; `undefined` where there was none. */
  async find(address: string): Promise<string | undefined> {
    return (await this.#byAddress.get(address))?.contentHash;
  }

  /** The breakpoints of the style sheet at an address; `undefined` where there was none. */
  async breakpointsOf(address: string): Promise<Breakpoints | undefined> {
    return (await this.#byAddress.get(address))?.breakpoints;
  }

  /** The content hash of the style sheet at an address with its rules; `undefined` where either is not known. */
  async rulesAt(address: string): Promise<readonly [string, readonly StyleRule[]] | undefined> {
    const contentHash = await this.find(address);
    const rules = contentHash === undefined ? undefined : await this.#rulesOf(contentHash);
    return contentHash === undefined || !rules ? undefined : [contentHash, rules];
  }

  async #read(cdp: Channel, request: RecordedRequest, kind: TextKind): Promise<Kept | undefined> {
    if (request.bodyBytes > maxTextBytes) return undefined;
    try {
      const { body, base64Encoded } = await cdp.send('Network.getResponseBody', {
        requestId: request.id,
      });
      const bytes = Buffer.from(body, base64Encoded ? 'base64' : 'utf8');
      if (bytes.length === 0) return undefined;
      const breakpoints = kind === 'style' ? breakpointsIn(bytes.toString()) : undefined;
      return { contentHash: this.#keep(bytes, kind), breakpoints };
    } catch {
      // The page has gone on by now, or gave up on it.
      return undefined;
    }
  }
}

function kindOf(request: RecordedRequest): TextKind | undefined {
  if (request.status < 200 || request.status >= 300) return undefined;
  const type = typeOf(request);
  if (type === 'html' || type === 'style' || type === 'script' || type === 'font') return type;
  return type === 'other' && /json|xml|text\//.test(request.mediaType) ? 'data' : undefined;
}
