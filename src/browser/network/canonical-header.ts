import { headerOf } from './recorded-request.js';
import type { RecordedRequest } from './recorded-request.js';

/** The canonical address in the `Link` header of a response (RFC 6596, section 3; RFC 8288). */
export function canonicalInHeaders(answer: RecordedRequest): string | null {
  const links = headerOf(answer, 'link')?.matchAll(/<([^>]*)>([^,<]*)/g) ?? [];
  for (const [, target = '', parameters = ''] of links)
    if (/;\s*rel="?[^";]*\bcanonical\b/i.test(parameters) && URL.canParse(target, answer.url))
      return new URL(target, answer.url).href;
  return null;
}
