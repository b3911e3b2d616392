import { isInDocument } from '../../address/address.js';
import { imageFinding } from './image-case.js';

export const severalAddresses = imageFinding({
  id: 'several-addresses',
  title: 'sent under several addresses',
  doer: 'markup',
  fix: 'Link to one of the addresses everywhere.',
  isWork: false,
  docs: {
    meaning: 'The same image is sent under several addresses.',
    why: 'Browsers load and keep each of them.',
    computed: 'By the content of the files.',
    ignore: 'Where the addresses are due to change apart.',
  },
  check: ({ file, answers }) => {
    const fetched = answers.filter(({ url }) => !isInDocument(url));
    const addresses = new Set(fetched.map(({ url }) => url)).size;
    return addresses < 2 || file.problem !== null ? undefined : { addresses };
  },
  describe: ({ addresses }) =>
    `the same content is sent under ${addresses} addresses: link to one of them`,
});
