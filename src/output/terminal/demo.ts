import type { SessionComparison } from '../../core/load/comparison.js';
import type { Portion } from '../../core/waste/portion.js';
import { count, formatBytes, formatShare, formatTime } from '../units.js';
import { paletteFor } from './style.js';
import type { Screen } from './style.js';

export interface DemoSheet {
  readonly pages: number;
  readonly images: number;
  readonly perVisit: Portion;
  readonly files: number;
  readonly comparison: SessionComparison;
  readonly folders: { readonly workspace: string; readonly out: string };
}

/** The demo in five lines. */
export function drawDemoSummary(sheet: DemoSheet, screen: Screen): string {
  const { bold } = paletteFor(screen);
  const { pages, images, perVisit, files, comparison, folders } = sheet;
  const change = (name: 'load' | 'largestContentfulPaint') => {
    const { before, after } = comparison.markers[name];
    return before && after
      ? `${formatTime(before.median)} to ${bold(formatTime(after.median))}`
      : 'not reached';
  };
  const { before, after } = comparison.bytes;
  return [
    `Surveyed  ${count(pages, 'page')} of the Brindle Bay Kite Festival, ${count(images, 'image file')}`,
    `Wasted    ${bold(formatBytes(perVisit.wasteBytes))} of the ${formatBytes(perVisit.sentBytes)} of images that an average visit is sent, ${formatShare(perVisit.wasteBytes, perVisit.sentBytes)}`,
    `Refitted  ${count(files, 'file')}; the front page went from ${formatBytes(before?.median ?? 0)} to ${bold(formatBytes(after?.median ?? 0))}`,
    `Clocked   load ${change('load')}, largest contentful paint ${change('largestContentfulPaint')}`,
    `Kept      workspace ${folders.workspace}, new files ${folders.out}: try zealous-lynx rank, or demo --serve`,
  ].join('\n');
}
