/** An address of the document made absolute, or nothing when it is none. */
export function resolveAddress(text: string): string | undefined {
  return URL.canParse(text, document.baseURI) ? new URL(text, document.baseURI).href : undefined;
}
