import type { Browser } from 'playwright-core';
import { coldLoad } from '../../browser/load/cold-load.js';
import type { LoadPlan, Shot } from '../../browser/load/cold-load.js';
import { completenessOf } from '../../core/pixels/film.js';
import type { Film } from '../../core/pixels/film.js';
import { readLuma } from '../../images/picture.js';

/**
 * Loads a page once more with cold caches and films it.
 *
 * @returns `null` when the load failed, or nothing was drawn
 */
export async function filmLoad(browser: Browser, order: LoadPlan): Promise<Film | null> {
  let shots: readonly Shot[] = [];
  const [run] = await coldLoad(browser, {
    ...order,
    onPicture: undefined,
    onFilm: (taken) => (shots = taken),
  });
  if (run.failure !== null || shots.length === 0) return null;
  // What was there before is the empty page, which stands until the first frame of the new one.
  const early = shots.findLastIndex(({ at }) => at <= 0);
  const own = shots
    .slice(Math.max(0, early))
    .map((shot) => ({ ...shot, at: Math.max(0, shot.at) }));
  const lumas = await Promise.all(own.map(({ picture }) => readLuma(picture, 1)));
  const completeness = completenessOf(lumas);
  const frames = own
    .map((shot, index) => ({ ...shot, completeness: completeness[index]! }))
    .filter(({ picture }, index) => index === 0 || !picture.equals(own[index - 1]!.picture));
  const { width, height } = lumas[0]!;
  const arrivals = run.requests
    .flatMap(({ url, type, end, transferBytes: bytes, status }) =>
      end === null || status >= 400 ? [] : [{ at: end, url, type, bytes }],
    )
    .sort((a, b) => a.at - b.at);
  return { frames, size: { width, height }, load: run.markers.load, arrivals };
}
