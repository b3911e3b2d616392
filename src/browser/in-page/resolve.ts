/** An address of the document made absolute, or nothing if it is invalid. */
export function resolveAddress(text: string): string | undefined {
  return URL.canParse(text, document.baseURI) ? new URL(text, document.baseURI).href : undefined;
}
