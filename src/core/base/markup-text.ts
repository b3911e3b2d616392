const entities: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
};

/** Text escaped for an element or a quoted attribute of HTML or XML. */
export function asMarkup(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => entities[sign]!);
}
