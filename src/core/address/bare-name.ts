/**
 * Host, folder and stem of an address, without what builds and image services put into it: no query, no extension, no
 * content hash, no width or density in the file's name. Nothing where it is not an address.
 */
export function bareName(url: string): string {
  if (!URL.canParse(url)) return '';
  const { host, pathname } = new URL(url);
  const stem = pathname
    .replace(/\.[a-z0-9]{2,5}$/i, '')
    .replace(/[-_.](?=[a-z]*\d)[a-z0-9]{6,64}$/i, '')
    .replace(/(?:[-_.]\d{2,4}(?:x\d{2,4}|w|px)?|@\dx)$/i, '')
    .replace(/[-_.](?=[a-z]*\d)[a-z0-9]{6,64}$/i, '');
  return `${host}${stem}`;
}
