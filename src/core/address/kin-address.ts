/** Names of files that servers send for their folder. */
const folderFile = /\/(?:index|default|home)\.(?:html?|php|aspx?|jsp|cgi|shtml|xhtml)$/;

/**
 * Whether two addresses may well be one page by what they are called: they differ in the name of the folder's own file
 * (`/` and `/index.html`), in a slash at the end, in letter case, or in `www.` and the scheme.
 */
export function areKin(one: string, other: string): boolean {
  return bareOf(one) === bareOf(other);
}

function bareOf(address: string): string {
  const { host, pathname, search } = new URL(address);
  const path = pathname.toLowerCase().replace(folderFile, '/').replace(/\/$/, '');
  return host.replace(/^www\./, '') + path + search;
}
