import type { OwnWidthsPlan, SizesChange } from './own-widths-plan.js';
import { leastBytes, successorOf } from '../refit-job.js';
import type { MadeJob } from '../refit-job.js';
import { formatBytes } from '../../base/byte-words.js';
import type { DraftItem } from './work-item.js';

/** What is to be done about images whose site offers several widths of them, the step that comes first first. */
export function ownWidthsItems(plan: OwnWidthsPlan, jobs: readonly MadeJob[]): DraftItem[] {
  const { sizes, encodingSaved, formatSaved, widths, widthsSaved } = plan;
  const inPlace = jobs.filter(({ isInPlace }) => isInPlace);
  const replaced = inPlace.filter((job) => successorOf(job) !== null);
  const about = (images: readonly MadeJob[]) => ({
    ...{ url: inPlace[0]?.file.originals[0] ?? '', images: Math.max(1, images.length) },
    ...{ where: null, pages: [], selector: '' },
  });
  const items = sizes.map(sizesItem);
  if (encodingSaved >= 1)
    items.push({
      ...{ ...about(replaced), key: 'same names', who: 'content', savedPerVisit: encodingSaved },
      what: 'copy the refitted files over those of the same name: same pixels, fewer bytes',
      ...{ from: sumOf(replaced, 'from'), to: sumOf(replaced, 'own') },
    });
  if (formatSaved >= 1)
    items.push({
      ...{ ...about(inPlace), key: 'formats', who: 'server', savedPerVisit: formatSaved },
      what: 'send the modern format beside each name to browsers that accept it (rules in server/)',
      ...{ from: sumOf(inPlace, 'own'), to: sumOf(inPlace, 'best') },
    });
  if (widths.length > 0 && widthsSaved >= 1)
    items.push({
      ...{ ...about(inPlace), key: 'make widths', who: 'markup', savedPerVisit: widthsSaved },
      what: `have the site make these widths of its pictures as well, then copy the files of the refit over them: ${widths.join(', ')}`,
      ...{ from: 'widths that are not near the need', to: `${widths.join(', ')} pixels wide` },
    });
  return items;
}

function sizesItem(change: SizesChange): DraftItem {
  const { slot, text, declared, where, pages, selector, urls, saved } = change;
  return {
    ...{ who: 'markup', url: urls[0]!, images: urls.length, pages, selector },
    where: where.length === 1 ? where[0]! : null,
    ...{ key: `sizes\n${slot}\n${where.join('\n')}`, savedPerVisit: saved },
    what: `write sizes="${text}"`,
    ...{ from: declared === null ? 'no sizes' : `sizes="${declared}"`, to: text },
  };
}

/** The bytes of some files: as they are, in their own format, and in the best. */
function sumOf(jobs: readonly MadeJob[], which: 'from' | 'own' | 'best'): string {
  const bytes = jobs.reduce((sum, job) => {
    const { bytes: before } = job.file.from;
    if (which === 'from') return sum + before;
    return sum + (which === 'own' ? (successorOf(job)?.bytes ?? before) : leastBytes(job));
  }, 0);
  return `${formatBytes(bytes)} in ${jobs.length} ${jobs.length === 1 ? 'file' : 'files'}`;
}
