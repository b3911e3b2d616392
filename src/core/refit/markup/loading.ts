import type { PlacedImage } from '../../findings/image/image-case.js';

/** When the image of an element should be requested. */
export type LoadingTime = 'first' | 'at once' | 'when near';

/** @param placed one element on one page, in all its views */
export function loadingOf(placed: readonly PlacedImage[]): LoadingTime {
  if (placed.some(({ largest }) => largest)) return 'first';
  return placed.some(({ aboveFold }) => aboveFold) ? 'at once' : 'when near';
}

/**
 * The attributes that mend when an element is requested; none where it is right already.
 *
 * @param placed one element on one page, in all its views
 */
export function loadingChange(
  placed: readonly PlacedImage[],
): Readonly<Record<string, string | null>> {
  const time = loadingOf(placed);
  const isLazy = placed.some(({ loading }) => loading === 'lazy');
  const isFirst = placed.some(({ markup }) => markup?.fetchPriority === 'high');
  const isEarly = placed.some(({ fetched }) => fetched === 'at-once');
  if (time === 'when near') return isLazy || !isEarly ? {} : { loading: 'lazy' };
  return {
    ...(isLazy && { loading: null }),
    ...(time === 'first' && !isFirst && { fetchpriority: 'high' }),
  };
}
