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

/** Characters that are turned into bytes together. */
const piece = 2 ** 20;

/**
 * A document as the bytes of a file, the same as its text with a line's end: lists are written item by item, since the
 * documents of large sites are longer than a text may be.
 *
 * @param textOf of the document's parts, with or without what is secret
 */
export function jsonBytes(
  document: Readonly<Record<string, unknown>>,
  textOf: (part: unknown) => string,
): Buffer {
  const pieces: Buffer[] = [];
  let text = '{';
  const write = (more: string) => {
    text += more;
    if (text.length < piece) return;
    pieces.push(Buffer.from(text));
    text = '';
  };
  Object.entries(document).forEach(([name, value], at) => {
    write(`${at === 0 ? '' : ','}\n  ${JSON.stringify(name)}: `);
    if (!Array.isArray(value) || value.length === 0) write(indented(textOf(value), 2));
    else {
      value.forEach((item, place) =>
        write(`${place === 0 ? '[' : ','}\n    ${indented(textOf(item), 4)}`),
      );
      write('\n  ]');
    }
  });
  write('\n}\n');
  return Buffer.concat([...pieces, Buffer.from(text)]);
}

/** Line ends of a JSON text stand between its parts only: in strings they are escaped. */
function indented(text: string, spaces: number): string {
  return text.replaceAll('\n', `\n${' '.repeat(spaces)}`);
}
