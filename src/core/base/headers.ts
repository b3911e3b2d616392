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

/** The longest value that is stored. */
const maxValue = 2_000;

/** A header without secrets, as it is stored. */
export function redacted({ name, value }: Header): Header {
  return {
    name,
    value: secret.has(name.toLowerCase()) ? '(redacted)' : value.slice(0, maxValue),
  };
}
