import { wayToEncode } from '../dist/src/images/lossy-formats.js';

/**
 * The encodes that were made to find the file which a picture should be, for a bare loop to make again: each attempt, as it
 * was made, and the one at half the size that tells how bytes follow pixels.
 */
export function encodesOf({ need, attempts, format, steps }) {
  const drafts = attempts.filter((attempt) => attempt.isDraft && attempt.format === format);
  const asMade = ({ format, quality, isDraft }) => {
    const isDrafted = !isDraft && format === 'avif' && drafts.length > 0;
    return { format, quality, isDraft, ...(isDrafted ? wayToEncode(need, drafts.at(-1)) : {}) };
  };
  const best = attempts.find((one) => !one.isDraft && one.bytes === steps.best);
  const half = { width: Math.round(need.width / 2), height: Math.round(need.height / 2) };
  return [
    ...attempts.map((attempt) => ({ size: need, ...asMade(attempt) })),
    // Made as the draft was, where there is one.
    { size: half, ...asMade(drafts.at(-1) ?? best) },
  ];
}
