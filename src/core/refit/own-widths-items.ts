import type { OwnWidthsFamily, OwnWidthsPlan } from './own-widths-plan.js';
import { leastBytes, successorOf } from './refit-job.js';
import type { MadeJob } from './refit-job.js';
import { kilobytes } from './work-item.js';
import type { DraftItem } from './work-item.js';

/** What is to be done about images whose site offers several widths of them, the step that comes first first. */
export function ownWidthsItems(
  { families, encodingSaved, formatSaved }: OwnWidthsPlan,
  jobs: readonly MadeJob[],
): DraftItem[] {
  const inPlace = jobs.filter(({ isInPlace }) => isInPlace);
  const [first] = inPlace;
  const about = (images: readonly MadeJob[]) => ({
    ...{ url: first?.file.originals[0] ?? '', images: images.length },
    ...{ where: null, pages: [], selector: '' },
  });
  const replaced = inPlace.filter((job) => successorOf(job) !== null);
  const files: DraftItem[] = [];
  if (encodingSaved >= 1)
    files.push({
      ...{ ...about(replaced), key: 'same names', who: 'content', savedPerVisit: encodingSaved },
      what: 'copy the refitted files over those of the same name: same pixels, fewer bytes',
      ...{ from: sumOf(replaced, 'from'), to: sumOf(replaced, 'own') },
    });
  if (formatSaved >= 1)
    files.push({
      ...{ ...about(inPlace), key: 'formats', who: 'server', savedPerVisit: formatSaved },
      what: 'send the modern format beside each name to browsers that accept it (rules in server/)',
      ...{ from: sumOf(inPlace, 'own'), to: sumOf(inPlace, 'best') },
    });
  return [...families.flatMap(familyItems), ...files];
}

function familyItems(family: OwnWidthsFamily): DraftItem[] {
  const { where, slot, pages, selector, urls, sizes, declared, widths } = family;
  const about = {
    ...{ who: 'markup' as const, url: urls[0]!, images: urls.length, where, pages, selector },
  };
  const [main, ...others] = sizes;
  const items: DraftItem[] = [];
  if (main) {
    const more =
      others.length === 0 ? '' : `; ${others.length} more for some of them, in snippets.md`;
    items.push({
      ...{ ...about, key: `sizes\n${where}\n${slot}`, savedPerVisit: family.sizesSaved },
      what: `write sizes="${main.text}"${more}`,
      ...{ from: declared === null ? 'no sizes' : `sizes="${declared}"`, to: main.text },
    });
  }
  if (family.widthsSaved >= 1 && widths.length > 0)
    items.push({
      ...{ ...about, key: `make\n${where}\n${slot}`, savedPerVisit: family.widthsSaved },
      what: `let the site make these widths of its pictures for this slot: ${widths.join(', ')}`,
      ...{ from: 'widths that are not near the need', to: `${widths.join(', ')} pixels wide` },
    });
  return items;
}

/** The bytes of some files: as they are, in their own format, and in the best. */
function sumOf(jobs: readonly MadeJob[], which: 'from' | 'own' | 'best'): string {
  const bytes = jobs.reduce((sum, job) => {
    const { bytes: before } = job.file.from;
    if (which === 'from') return sum + before;
    return sum + (which === 'own' ? (successorOf(job)?.bytes ?? before) : leastBytes(job));
  }, 0);
  return `${kilobytes(bytes)} in ${jobs.length} ${jobs.length === 1 ? 'file' : 'files'}`;
}
