import { imageFinding } from './image-case.js';

/** Spellings of one media type that servers use for the same format. */
const aliases: Readonly<Record<string, string>> = {
  'image/jpg': 'image/jpeg',
  'image/pjpeg': 'image/jpeg',
  'image/x-png': 'image/png',
};

export const mislabelled = imageFinding({
  id: 'mislabelled',
  title: 'wrong media type',
  doer: 'server',
  fix: 'Send the media type of the format that the file really has.',
  isWork: true,
  docs: {
    meaning: 'The server declares another media type than the bytes have.',
    why: 'Browsers may refuse the file, and caches and programs treat it wrongly.',
    computed: 'By the first bytes of the file and the header content-type.',
    ignore: 'Never.',
  },
  check: ({ file, answers }) => {
    const wrong = answers
      .map(({ declaredType }) => aliases[declaredType] ?? declaredType)
      .find((declared) => declared !== '' && declared !== file.mediaType);
    return wrong === undefined ? undefined : { declared: wrong, actual: file.mediaType };
  },
  describe: ({ declared, actual }) => `is sent as ${declared}, but the bytes are ${actual}`,
});
