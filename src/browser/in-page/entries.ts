import { canWait } from './waiting.js';

/**
 * All entries of one type that the browser has kept.
 *
 * @param patience milliseconds that they may take to be handed over
 */
export function entriesOf(type: string, patience = 60): Promise<PerformanceEntry[]> {
  if (!canWait()) return Promise.resolve([]);
  return new Promise((resolve) => {
    const kept: PerformanceEntry[] = [];
    const observer = new PerformanceObserver((list) => kept.push(...list.getEntries()));
    observer.observe({ type, buffered: true });
    // The kept entries are delivered in a task of their own, right after this one.
    setTimeout(() => {
      kept.push(...observer.takeRecords());
      observer.disconnect();
      resolve(kept);
    }, patience);
  });
}

export interface LayoutShiftEntry extends PerformanceEntry {
  readonly value: number;
  readonly hadRecentInput: boolean;
  readonly sources?: readonly {
    readonly node: Node | null;
    readonly currentRect: DOMRectReadOnly;
  }[];
}

export interface LargestEntry extends PerformanceEntry {
  /** Square CSS pixels of it in the window. */
  readonly size: number;
  /** Address of the picture; empty for a text. */
  readonly url: string;
  /** `null` when it is no longer in the document. */
  readonly element: Element | null;
}
