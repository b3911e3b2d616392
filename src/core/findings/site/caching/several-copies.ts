import { fileFinding } from '../site-case.js';

/** What is used the same from any address. */
const copied: ReadonlySet<string> = new Set(['style', 'script', 'font']);

/** One content under several addresses: browsers load and keep each of them. */
export const severalCopies = fileFinding({
  id: 'several-copies',
  title: 'the same file under several addresses',
  doer: 'markup',
  fix: 'Use one address for it on all pages.',
  isWork: true,
  docs: {
    meaning:
      'A style sheet, a script or a font is sent under several addresses or by several hosts.',
    why: 'Browsers load and keep each of them.',
    computed:
      'By the content of the files; the one that is sent most often stays. The cost is the bytes of the others on the wire.',
    ignore: 'Where the copies are due to change apart.',
  },
  checkFile: (file, { sameContent }) => {
    const { url, type, contentHash, transferBytes } = file.resource;
    if (contentHash === null || !copied.has(type)) return undefined;
    const [first, ...others] = sameContent.get(contentHash) ?? [];
    // The one that is sent most often stays.
    if (!first || others.length === 0 || first === file) return undefined;
    return { data: { url, same: first.resource.url }, bytes: transferBytes };
  },
  step: ({ same }) => `name ${same} in its place`,
  describe: ({ same }) => `is the same as ${same}`,
});
