import { siteFinding } from './site-case.js';

/** One content under several addresses: browsers load and keep each of them. */
export const severalCopies = siteFinding({
  id: 'several-copies',
  title: 'the same file under several addresses',
  doer: 'markup',
  fix: 'Use one address for it on all pages.',
  isWork: true,
  check: (file, { sameContent }) => {
    const { url, type, contentHash, transferBytes } = file.resource;
    if (contentHash === null || (type !== 'style' && type !== 'script')) return undefined;
    const [first, ...others] = sameContent.get(contentHash) ?? [];
    // The one that is sent most often stays.
    if (!first || others.length === 0 || first === file) return undefined;
    return { data: { url, same: first.resource.url }, bytes: transferBytes };
  },
  step: ({ same }) => `name ${same} in its place`,
  describe: ({ same }) => `is the same as ${same}`,
});
