import { isInDocument, splitExtension } from '../../address/address.js';
import { imageFinding } from './image-case.js';

/** Names that cameras, programs and content systems give, and bare numbers and hashes. */
const machineName =
  /^(?:(?:img|dsc[nf]?|dscf?|image|photo|pict?|picture|foto|untitled|unnamed|screen ?shot|scan|file|download|p|gopr)[-_ ]?\d*(?:[-_ (]?\d+\)?)*|[\d-_.]+|[0-9a-f]{8,}(?:-[0-9a-f]+)*)$/i;

export const nameless = imageFinding({
  id: 'nameless',
  title: 'meaningless file name',
  doer: 'content',
  fix: 'Give the file a name that says what the picture shows.',
  isWork: true,
  docs: {
    meaning: 'A file is named as cameras and programs do, by a number or a hash.',
    why: 'Nobody finds it again, search engines cannot tell what it shows.',
    computed: 'By the last part of its address.',
    ignore: 'Where a content system names files this way and nobody reads them.',
  },
  check: ({ answers, placements }) => {
    const addresses = new Set(answers.map(({ url }) => url));
    const names = [...addresses]
      .filter((url) => !isInDocument(url) && URL.canParse(url))
      .map((url) => new URL(url).pathname.split('/').at(-1)!.replaceAll('%20', ' '));
    if (placements.length === 0 || names.length === 0) return undefined;
    if (!names.every((name) => machineName.test(splitExtension(name).stem))) return undefined;
    return { name: names[0]! };
  },
  describe: ({ name }) => `its name, ${name}, does not say what it shows`,
});
