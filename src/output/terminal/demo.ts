import type { DemoView } from '../views/demo.js';
import { count, formatBytes, formatShare, formatTime } from '../words/units.js';
import { agreementLines } from '../words/tried-before.js';
import { verdictSentences } from '../words/trial.js';
import { paletteFor, wrapped } from './style.js';
import type { Screen } from './style.js';

/** The demo in a few lines. */
export function drawDemoSummary(view: DemoView, screen: Screen): string {
  const { bold } = paletteFor(screen);
  const { pages, images, perVisit, files, tried, comparison, folders } = view;
  const change = (name: 'load' | 'largestContentfulPaint') => {
    const { before, after } = comparison.markers[name];
    return before && after
      ? `${formatTime(before.median)} to ${bold(formatTime(after.median))}`
      : 'not reached';
  };
  const { before, after } = comparison.bytes;
  const lines: readonly (readonly [title: string, words: string])[] = [
    [
      'Surveyed',
      `${count(pages, 'page')} of the Brindle Bay Kite Festival, ${count(images, 'image file')}`,
    ],
    [
      'Wasted',
      `${bold(formatBytes(perVisit.wasteBytes))} of the ${formatBytes(perVisit.sentBytes)} of images that an average visit is sent, ${formatShare(perVisit.wasteBytes, perVisit.sentBytes)}`,
    ],
    [
      'Refitted',
      `${count(files, 'file')}; the front page went from ${formatBytes(before?.median ?? 0)} to ${bold(formatBytes(after?.median ?? 0))}`,
    ],
    ...titled('Tried', verdictSentences(tried)),
    ...titled('Clocked', [
      `after it was deployed: load ${change('load')}, largest contentful paint ${change('largestContentfulPaint')}`,
      ...agreementLines(tried, comparison),
    ]),
    [
      'Reported',
      `open ${bold(folders.report)} in a browser: all of it, for those who use no terminal`,
    ],
    [
      'Kept',
      `workspace ${folders.workspace}, new files ${folders.out}; try zealous-lynx rank, or demo --weeks`,
    ],
  ];
  return lines
    .map(([title, words]) => title.padEnd(indent) + wrapped(words, screen, indent))
    .join('\n');
}

/** Columns of the titles. */
const indent = 10;

/** Lines under one title. */
function titled(title: string, lines: readonly string[]): (readonly [string, string])[] {
  return lines.map((words, at) => [at === 0 ? title : '', words]);
}
