import type { ImageCheck } from './finding.js';

/** Spellings of one media type that servers use for the same format. */
const aliases: Readonly<Record<string, string>> = {
  'image/jpg': 'image/jpeg',
  'image/pjpeg': 'image/jpeg',
  'image/x-png': 'image/png',
};

export const mislabelled: ImageCheck = ({ file, responses }) => {
  for (const { declaredType } of responses) {
    const declared = aliases[declaredType] ?? declaredType;
    if (declared && declared !== file.mediaType)
      return {
        id: 'mislabelled',
        message: `sent as ${declared}, but the bytes are ${file.mediaType}`,
      };
  }
  return undefined;
};
