import type { Grouping } from '../../core/rank/groupings.js';
import { neededKey } from '../../core/rank/groupings.js';
import type { RankRow } from '../../core/rank/rank-view.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import type { Cause } from '../../core/waste/waste.js';
import { causeTitles } from './causes.js';
import { withoutOrigin } from './plain-text.js';

/** What a row is about, in words. */
export function nameOf(row: RankRow, by: Grouping, origin: string): string {
  switch (by) {
    case 'family':
      return slotName(row);
    case 'image':
      return withoutOrigin(row.worst?.url ?? row.key, origin);
    case 'cause':
      return row.key === neededKey ? 'needed' : causeTitles[row.key as Cause];
    case 'page':
    case 'group':
    case 'host':
      return withoutOrigin(row.key, origin);
  }
}

/** The slot of a family: its selector, and its kind where it is no plain element. */
function slotName({ family, worst }: RankRow): string {
  if (!family?.kind) return `(no element) ${worst?.url ?? ''}`;
  const slot = family.slot.replace(/^body > /, '');
  return family.kind === 'img' ? slot : `${slot} (${family.kind})`;
}

/** The origin that addresses are shortened by: that of the survey's first start. */
export function originOf({ starts }: Pick<SurveyHead, 'starts'>): string {
  return starts[0] ? new URL(starts[0]).origin : '';
}

/** The word shown instead of pixels. */
export function pixelWords({ file }: RankedImage): string {
  return file.mediaType === 'image/svg+xml' ? 'vector' : '?';
}
