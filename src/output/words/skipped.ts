import { groupBy } from '../../core/base/group-by.js';
import type { SkippedAddress } from '../../core/survey/survey.js';
import { plainText, shorten } from './plain-text.js';
import { count } from './units.js';

/** More reasons than these would push the rest off the screen. */
const maxReasons = 12;

/** Reasons for skipping addresses, the most frequent first. */
export function skippedLines(skipped: readonly SkippedAddress[]): string[] {
  const reasons = groupBy(skipped, ({ reason }) => reason.replace(oneAddress, '$1 …'));
  return [...reasons]
    .sort(([, a], [, b]) => b.length - a.length)
    .slice(0, maxReasons)
    .map(([reason, [first, ...more]]) => {
      const kind = /^a link to a (\.\w+) file$/.exec(reason)?.[1];
      if (kind) return `skipped ${count(more.length + 1, 'link')} to ${kind} files`;
      if (more.length > 0) return `skipped ${more.length + 1} addresses: ${plainText(reason)}`;
      return `skipped ${shorten(first!.url, 70)}: ${plainText(first!.reason)}`;
    });
}

/** The part of a reason that is another with every address. */
const oneAddress =
  /^(redirects to another site:|redirects to|its canonical address is|shows the same document as) \S+/;
