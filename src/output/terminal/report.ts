import { plainText, shorten } from '../words/plain-text.js';
import { shellWord } from '../words/shell-word.js';
import { count, formatBytes } from '../words/units.js';
import type { WrittenReport } from '../views/written-report.js';
import { joined, paletteFor } from './style.js';
import type { Screen } from './style.js';

/** What a report that was written contains, and what it lacks. */
export function drawWrittenReport(written: WrittenReport, screen: Screen): string {
  const { bold, yellow } = paletteFor(screen);
  const { file, bytes, survey, pages, images, sessions, comparisons, trials } = written;
  const parts = [
    count(pages, 'page'),
    count(images, 'image'),
    count(sessions, 'session'),
    count(comparisons, 'comparison'),
    count(trials, 'trial'),
    count(written.workItems, 'item of work', 'items of work'),
  ];
  const { withoutPicture: missing, firstWithoutPicture, imagesLeftOut, plansLeftOut } = written;
  const listed = images - imagesLeftOut;
  return [
    `Wrote ${bold(plainText(file))} (${formatBytes(bytes)}): the survey ${plainText(survey)}`,
    joined(parts, screen),
    ...(written.isUnfinished
      ? [yellow('The survey was interrupted: the report has the pages surveyed until then.')]
      : []),
    ...(missing > 0
      ? [
          missing === listed
            ? 'The images have no thumbnails: their bodies are not kept.'
            : withoutPictureWords(missing, firstWithoutPicture),
        ]
      : []),
    ...(imagesLeftOut > 0
      ? [
          `It lists the images that waste the most, and leaves ${count(imagesLeftOut, 'image')} out; the totals are of all.`,
        ]
      : []),
    ...(plansLeftOut > 0
      ? [`It draws the pages that waste the most, and leaves ${count(plansLeftOut, 'page')} out.`]
      : []),
    'It needs no network: mail it, or open it from disk.',
  ].join('\n');
}

function withoutPictureWords(missing: number, first: string | null): string {
  const [have, which] = missing === 1 ? ['has', 'it'] : ['have', 'the first of them'];
  const words = `${count(missing, 'image')} ${have} no thumbnail: the body is not kept, or cannot be read`;
  if (first === null) return `${words}.`;
  return `${words};\n  zealous-lynx explain ${shellWord(shorten(first, 90))} tells more of ${which}.`;
}
