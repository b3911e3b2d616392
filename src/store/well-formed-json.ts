/**
 * JSON that databases can read: half a surrogate pair and U+0000, which JSON can say and a text of theirs cannot be, are
 * replaced.
 */
export function wellFormedJson(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) =>
    typeof part === 'string' ? part.replace(/\p{Cs}/gu, '\uFFFD').replaceAll('\0', '\uFFFD') : part,
  );
}
