import {
  Virtualizer,
  elementScroll,
  observeElementOffset,
  observeElementRect,
} from '@tanstack/virtual-core';
import type { VirtualizerOptions } from '@tanstack/virtual-core';
import { useLayoutEffect, useReducer, useState } from 'preact/hooks';

type Given = Pick<
  VirtualizerOptions<HTMLElement, HTMLElement>,
  'count' | 'getScrollElement' | 'estimateSize' | 'getItemKey' | 'overscan'
>;

/** Draws of a long list only what is in sight. */
export function useVirtual(options: Given): Virtualizer<HTMLElement, HTMLElement> {
  const [, draw] = useReducer((times: number) => times + 1, 0);
  const whole = {
    ...{ observeElementRect, observeElementOffset, scrollToFn: elementScroll },
    ...options,
    onChange: () => draw(undefined),
  };
  const [virtual] = useState(() => new Virtualizer<HTMLElement, HTMLElement>(whole));
  virtual.setOptions(whole);
  useLayoutEffect(() => virtual._didMount(), [virtual]);
  useLayoutEffect(() => virtual._willUpdate());
  return virtual;
}
