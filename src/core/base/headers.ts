/** A header of a request or a response. */
export interface Header {
  readonly name: string;
  readonly value: string;
}

/** Headers that carry secrets: their names are shown, their values never. */
const secret: ReadonlySet<string> = new Set([
  'authorization',
  'cookie',
  'proxy-authorization',
  'set-cookie',
]);

/** The longest value that is stored: as long as the content security policies of large sites. */
export const maxValue = 8_000;

/** What stands for the value of a header that carries a secret. */
export const redactedValue = '(redacted)';

/** A header without secrets, as it is stored. */
export function redacted({ name, value }: Header): Header {
  return {
    name,
    value: secret.has(name.toLowerCase()) ? redactedValue : value.slice(0, maxValue),
  };
}

/** Bytes of headers as HTTP/1.1 writes them (RFC 9112, section 5). */
export function totalSize(headers: readonly Header[]): number {
  return headers.reduce((sum, { name, value }) => sum + name.length + value.length + 4, 0);
}
