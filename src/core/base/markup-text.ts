const entities: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
};

/** Text as it may stand in an element or a quoted attribute of HTML or XML. */
export function asMarkup(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => entities[sign]!);
}
