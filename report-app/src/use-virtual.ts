import {
  Virtualizer,
  defaultRangeExtractor,
  elementScroll,
  observeElementOffset,
  observeElementRect,
} from '@tanstack/virtual-core';
import type { Range, VirtualizerOptions } from '@tanstack/virtual-core';
import { useLayoutEffect, useReducer, useState } from 'preact/hooks';
import { usePrinting } from './use-printing.js';

type Given = Pick<
  VirtualizerOptions<HTMLElement, HTMLElement>,
  'count' | 'getScrollElement' | 'estimateSize' | 'getItemKey' | 'overscan'
>;

/** Items of a list that are printed. */
export const mostPrinted = 300;

/** Draws of a long list only what is in sight; what is printed has no window. */
export function useVirtual(options: Given): Virtualizer<HTMLElement, HTMLElement> {
  const [, draw] = useReducer((times: number) => times + 1, 0);
  const isPrinting = usePrinting();
  const whole = {
    ...{ observeElementRect, observeElementOffset, scrollToFn: elementScroll },
    ...options,
    rangeExtractor: isPrinting
      ? ({ count }: Range) => Array.from({ length: Math.min(count, mostPrinted) }, (_, at) => at)
      : defaultRangeExtractor,
    onChange: () => draw(undefined),
  };
  const [virtual] = useState(() => new Virtualizer<HTMLElement, HTMLElement>(whole));
  virtual.setOptions(whole);
  useLayoutEffect(() => virtual._didMount(), [virtual]);
  useLayoutEffect(() => virtual._willUpdate());
  return virtual;
}
