/** A header of a request or an answer. */
export interface Header {
  readonly name: string;
  readonly value: string;
}

/** Headers that carry secrets: told to be there, never told what they say. */
const secret: ReadonlySet<string> = new Set([
  'authorization',
  'cookie',
  'proxy-authorization',
  'set-cookie',
]);

/** The longest value that is kept. */
const maxValue = 2_000;

/** A header as it may be kept. */
export function redacted({ name, value }: Header): Header {
  return {
    name,
    value: secret.has(name.toLowerCase()) ? '(redacted)' : value.slice(0, maxValue),
  };
}
