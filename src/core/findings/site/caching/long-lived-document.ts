import { fileFinding } from '../site-case.js';
import { day, lifetimeOf, lifetimeWords } from './lifetime.js';

/** A document that browsers may keep for a day or longer: visitors see what it was, and the old names of files in it. */
export const longLivedDocument = fileFinding({
  id: 'long-lived-document',
  title: 'document that browsers keep for long',
  doer: 'server',
  fix: 'Send documents with cache-control: no-cache, so that browsers ask whether theirs is still good.',
  isWork: true,
  docs: {
    meaning:
      'Browsers may keep a document for a day or longer without asking whether it is still good.',
    why: 'Who was here before does not see changes, and asks for files by names that may be gone.',
    computed: 'By cache-control and expires (RFC 9111).',
    ignore: 'Where the document never changes, as an archive does.',
  },
  step: () => 'have browsers ask whether the document is still good (cache-control: no-cache)',
  checkFile: ({ resource }) => {
    const { url, type, status } = resource;
    if (type !== 'html' || status !== 200 || resource.thirdParty) return undefined;
    const seconds = lifetimeOf(resource);
    return seconds && seconds >= day ? { data: { url, seconds }, bytes: null } : undefined;
  },
  describe: ({ seconds }, { count }) =>
    `may be kept for ${lifetimeWords(seconds, count)}: who was here before does not see changes until then`,
});
