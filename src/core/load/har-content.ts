import { amountOf, textOf, untrustedObject } from '../base/untrusted.js';
import type { UntrustedObject } from '../base/untrusted.js';

/** What a HAR file holds of the body of a response. */
export interface HarContent {
  /** As the format has it; `null` where the file has none. */
  readonly text: string | null;
  /** Whether the text is base64. */
  readonly isBase64: boolean;
  /** Content hash of a body that is kept beside the file; `null` where none is. */
  readonly bodyHash: string | null;
  /** Whether it was requested only once the page was scrolled. */
  readonly onScroll: boolean;
  /** Milliseconds that it waited at the least, over several loads; `null` where there was one. */
  readonly shortestWait: number | null;
  /** Milliseconds that a connection to its host took at the least, over several loads; `null` where there was one load. */
  readonly shortestConnect: number | null;
}

const hash = /^[0-9a-f]{64}$/;

/** The body of an entry of a HAR file. */
export function contentOf(entry: UntrustedObject): HarContent {
  const content = untrustedObject(untrustedObject(entry['response'])['content']);
  const { text, encoding, _bodyHash } = content;
  const kept = textOf(_bodyHash);
  return {
    text: typeof text === 'string' ? text : null,
    isBase64: encoding === 'base64',
    bodyHash: hash.test(kept) ? kept : null,
    onScroll: entry['_onScroll'] === true,
    shortestWait: amountOf(entry['_shortestWait']),
    shortestConnect: amountOf(entry['_shortestConnect']),
  };
}
