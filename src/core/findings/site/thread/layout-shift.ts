import { mean } from 'simple-statistics';
import { pageFinding } from '../site-case.js';

/** The least score that is worth a row: a tenth is what visitors find bad in all. */
const least = 0.02;

/** An element that moves while the page loads. */
export const layoutShift = pageFinding({
  id: 'layout-shift',
  title: 'element that moves while the page loads',
  doer: 'markup',
  fix: 'Give what arrives above it a size (width and height, aspect-ratio, min-height).',
  isWork: true,
  docs: {
    meaning:
      'Something that is drawn already moves because something else arrives, or a font changes.',
    why: 'Visitors lose their line, or press what they did not mean.',
    computed:
      'By Layout Instability (WICG) before the page is scrolled: the score of each shift goes to the element that moved the largest area, the mean over all views, from 0.02. The cause is the highest element without a width or a height above it that arrived in the half second before.',
    ignore: 'Where it moves because the visitor did something.',
  },
  checkPage: ({ loads }) => {
    const shifts = loads.flatMap((load) => load.shifts);
    return [...new Set(shifts.map(({ selector }) => selector))].flatMap((selector) => {
      const own = loads.map((load) => load.shifts.find((shift) => shift.selector === selector));
      const score = mean(own.map((shift) => shift?.score ?? 0));
      if (score < least) return [];
      const cause = own.find((shift) => shift?.cause)?.cause ?? null;
      const data = { selector, score: Math.round(score * 1000) / 1000, cause };
      return [{ data, bytes: null, together: selector }];
    });
  },
  step: ({ cause }) =>
    cause
      ? `give ${cause.selector} a width and a height`
      : 'find out what arrives above it, and keep its place free',
  describe: ({ selector, score, cause }) =>
    `${selector} moves while the page loads (score ${score})${cause ? `: ${cause.selector} arrives above it without a size` : ''}`,
});
