import { fileFinding } from '../site-case.js';

/** Bytes in `data:` addresses up to which they cost less than what they save. */
const few = 8_000;

/** Images, fonts or other bodies that stand in a document, a style sheet or a script. */
export const embeddedData = fileFinding({
  id: 'embedded-data',
  title: 'files embedded as data:',
  doer: 'markup',
  fix: 'Serve them as files of their own: then they block nothing, are cached, and load only where they are shown.',
  isWork: true,
  docs: {
    meaning:
      'A document, a style sheet or a script holds images, fonts or other bodies as data: addresses, 8 kB of them and more.',
    why: 'They come before what the page needs first, cannot be cached by themselves, and are sent even where they are not shown.',
    computed:
      'The data: addresses of a kilobyte and more in the text are counted. What the files would weigh by themselves is not known, so that the cost is none of bytes.',
    ignore:
      'Where the page is made to work without a network, or is one self-contained file on purpose.',
  },
  step: () => 'serve what is embedded in it as files of their own',
  checkFile: ({ resource: { url, renderBlocking, type }, text }) => {
    if (!text || text.embedded.bytes < few) return undefined;
    const { count, bytes } = text.embedded;
    const blocks = renderBlocking || type === 'html';
    return {
      data: { url, count, embeddedBytes: bytes, textBytes: text.bytes, blocks },
      bytes: null,
    };
  },
  describe: ({ count, embeddedBytes, textBytes, blocks }, { bytes, count: counted }) =>
    `holds ${counted(count, 'file')} as data: with ${bytes(embeddedBytes)} of its ${bytes(textBytes)}${blocks ? '; the page is not drawn before they have arrived' : ''}`,
});
