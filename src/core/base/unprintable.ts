/** Marks that turn the direction of text, spaces of no width, and the controls behind ASCII. */
const beyondAscii = '\\u007F-\\u009F\\u200B-\\u200F\\u2028-\\u202E\\u2060-\\u2069\\uFEFF';
const unprintable = new RegExp(`[\\u0000-\\u001F${beyondAscii}]`, 'g');
const unescaped = new RegExp(`[${beyondAscii}]`, 'g');

/**
 * A text with a sign in the place of each character that must not be printed: what a page says must not move the cursor,
 * change colours, or disguise one address as another.
 */
export function printable(text: string, sign = '\uFFFD'): string {
  return text.replace(unprintable, sign);
}

/** A JSON text in which those characters are escapes; the ones of ASCII are already. */
export function escapedInJson(text: string): string {
  return text.replace(
    unescaped,
    (character) => `\\u${character.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );
}
