import { withoutSecrets } from '../../core/address/secrets.js';
import { escapedInJson } from '../../core/base/unprintable.js';

/**
 * A JSON document (RFC 8259) as text: what must not reach a terminal is written as an escape, which means the same, and no
 * address in it tells a secret.
 */
export function jsonText(document: unknown): string {
  return withoutSecrets(wholeJsonText(document));
}

/** The same with addresses as they are, for programs that need them. */
export function wholeJsonText(document: unknown): string {
  return escapedInJson(JSON.stringify(document, null, 2));
}
