import { isBefore, isConnected, isWithin, parentElementOf } from './element.js';
import { keptAddress } from '../../core/address/address.js';
import type { LayoutShift } from '../../core/survey/load-facts.js';
import { entriesOf } from './entries.js';
import type { LayoutShiftEntry } from './entries.js';
import { scrolledAt } from './scroll.js';
import { selectorOf } from './selector.js';

const maxShifts = 50;
/** Milliseconds by which what moves a page may have arrived before it moves. */
const drawingTime = 500;

/** What moved before the page was scrolled: of each shift the element that covers the largest area. */
export async function layoutShifts(): Promise<LayoutShift[]> {
  const entries = (await entriesOf('layout-shift', 0)) as LayoutShiftEntry[];
  const shifts = new Map<string, LayoutShift>();
  for (const { value, startTime, hadRecentInput, sources = [] } of entries) {
    if (hadRecentInput || startTime > scrolledAt) continue;
    const [largest] = sources
      .filter(({ node }) => node !== null)
      .toSorted((a, b) => areaOf(b.currentRect) - areaOf(a.currentRect));
    const { node = null, currentRect } = largest ?? {};
    const element = node instanceof Element ? node : node && parentElementOf(node);
    if (!element || !isConnected(element) || !currentRect) continue;
    const selector = selectorOf(element);
    const before = shifts.get(selector);
    const cause = before?.cause ?? causeOf(element, currentRect, startTime);
    shifts.set(selector, { score: (before?.score ?? 0) + value, selector, cause });
  }
  return [...shifts.values()].sort((a, b) => b.score - a.score).slice(0, maxShifts);
}

function areaOf({ width, height }: DOMRectReadOnly): number {
  return width * height;
}

/** The element without a size that arrived right before: the highest one above what moved, or in it. */
function causeOf(moved: Element, to: DOMRectReadOnly, time: number): LayoutShift['cause'] {
  const arrived = new Map(
    (performance.getEntriesByType('resource') as PerformanceResourceTiming[]).map(
      ({ name, responseEnd }) => [name, responseEnd],
    ),
  );
  const [first] = [...document.querySelectorAll('img, iframe, embed, object, video')]
    .map((element) => ({ element, url: sourceOf(element), box: element.getBoundingClientRect() }))
    .filter(({ element, url, box }) => {
      const age = time - (arrived.get(url) ?? -Infinity);
      const isAbove = box.bottom + scrollY <= to.bottom + scrollY && box.left < to.right;
      const isBare = !element.hasAttribute('width') || !element.hasAttribute('height');
      const isHigher = isWithin(element, moved) || isBefore(element, moved);
      return isBare && isHigher && isAbove && box.height > 1 && age >= -50 && age <= drawingTime;
    })
    .sort((a, b) => b.box.height - a.box.height);
  return first ? { selector: selectorOf(first.element), url: keptAddress(first.url) } : null;
}

function sourceOf(element: Element): string {
  if (element instanceof HTMLImageElement) return element.currentSrc;
  if (element instanceof HTMLObjectElement) return element.data;
  return 'src' in element && typeof element.src === 'string' ? element.src : '';
}
