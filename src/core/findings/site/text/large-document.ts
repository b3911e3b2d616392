import { fileFinding } from '../site-case.js';

/** Bytes of markup that take a phone a noticeable time to read, whatever they are compressed to. */
const large = 200_000;

/** A document that is large before anything that it refers to. */
export const largeDocument = fileFinding({
  id: 'large-document',
  title: 'large document',
  doer: 'markup',
  fix: 'Split it into pages, load what is far down when it is asked for, and take embedded styles, scripts and data out of it.',
  isWork: true,
  docs: {
    meaning: 'The markup of a document is larger than 200 kB.',
    why: 'Nothing of a page is there before its markup, and a phone takes long to read much of it.',
    computed: 'The bytes of the document, content encoding undone.',
    ignore: 'Where the document is one long text that people read or search as a whole.',
  },
  step: () => 'make the document smaller: split it, and take embedded styles, scripts and data out',
  checkFile: ({ resource: { url, type, status, bodyBytes, transferBytes } }) =>
    type === 'html' && status === 200 && bodyBytes > large
      ? { data: { url, textBytes: bodyBytes, transferBytes, limit: large }, bytes: null }
      : undefined,
  describe: ({ textBytes, transferBytes, limit }, { bytes }) =>
    `has ${bytes(textBytes)} of markup (${bytes(transferBytes)} on the wire); over ${bytes(limit)} takes a phone long to read`,
});
