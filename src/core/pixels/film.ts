import type { Luma } from './luma.js';
import type { Size } from '../base/size.js';

/** What a page showed from a moment on. */
export interface FilmMoment {
  /** Milliseconds since the navigation began. */
  readonly at: number;
  /** How similar it is to the finished page: 0 is the empty page, 1 the last frame. */
  readonly completeness: number;
}

/** A frame of a film. */
export interface FilmFrame extends FilmMoment {
  /** JPEG; all frames of a film have one size. */
  readonly picture: Uint8Array;
}

/** Something that had arrived, to its last byte. */
export interface FilmArrival {
  /** Milliseconds since the navigation began. */
  readonly at: number;
  readonly url: string;
  readonly type: string;
  /** On the wire. */
  readonly bytes: number;
}

/** A load in pictures: one extra load, besides those that are timed. */
export interface Film {
  /** The empty page first; each frame differs from the one before it. */
  readonly frames: readonly FilmFrame[];
  /** Pixels of a frame. */
  readonly size: Size;
  /** When its load event ended, in milliseconds; `null` when it did not. */
  readonly load: number | null;
  /** Everything that arrived during the film, in order of arrival. */
  readonly arrivals: readonly FilmArrival[];
}

/**
 * Visual completeness of the frames of a load: what a frame still differs from the last one by, as part of what the
 * first does, taken from 1. The difference of two frames is the mean of the absolute differences of their luma, pixel
 * by pixel; what only one of them has (the page grew while it loaded) counts as wholly different.
 *
 * @param frames in the order in which they were shown, the empty page first
 * @returns a number from 0 to 1 for each frame; 1 for all where nothing ever changed
 */
export function completenessOf(frames: readonly Luma[]): number[] {
  const [first, last] = [frames[0], frames.at(-1)];
  if (!first || !last) return [];
  const whole = difference(first, last);
  if (whole === 0) return frames.map(() => 1);
  return frames.map((frame) => Math.max(0, 1 - difference(frame, last) / whole));
}

/** Of 255, on average. */
function difference(one: Luma, other: Luma): number {
  if (one.width !== other.width || one.height !== other.height) return 255;
  let sum = 0;
  for (let at = 0; at < one.values.length; at++)
    sum += Math.abs(one.values[at]! - other.values[at]!);
  return sum / Math.max(1, one.values.length);
}

/** A page is as good as complete where no more than this is missing: grain of the frames stays below it. */
const asGoodAs = 0.995;

/** When the page reached its final look for good, in milliseconds; `null` without frames. */
export function visuallyCompleteAt(moments: readonly FilmMoment[]): number | null {
  const unfinished = moments.findLastIndex(({ completeness }) => completeness < asGoodAs);
  return moments[unfinished + 1]?.at ?? moments.at(-1)?.at ?? null;
}

/**
 * How long the page was unfinished: the integral over time of what was missing of it, from the beginning of the
 * navigation, in milliseconds. A page that is empty for a second and then complete comes to 1000, and so does one
 * that is half complete for two. `null` for no frames.
 */
export function unfinishedTime(moments: readonly FilmMoment[]): number | null {
  if (moments.length === 0) return null;
  return moments.reduce((sum, { at, completeness }, index) => {
    const until = moments[index + 1]?.at ?? at;
    return sum + (1 - completeness) * (until - at);
  }, 0);
}

/** The moment that holds at a time: the last one that is not after it. */
export function momentAt<Moment extends FilmMoment>(
  moments: readonly Moment[],
  time: number,
): Moment | undefined {
  return moments.findLast(({ at }) => at <= time) ?? moments[0];
}

/** A frame that is worth showing, with what had arrived since the survey before it. */
export interface FilmScene {
  readonly frame: FilmFrame;
  readonly arrived: readonly FilmArrival[];
}

/**
 * The frames at which the page looked different from before: the empty page, the first complete one, and of the others
 * those with the largest changes of completeness, at most `most` in all. What arrived between two of them is listed with
 * the later one.
 */
export function scenesOf(
  { frames, arrivals }: Pick<Film, 'frames' | 'arrivals'>,
  most: number,
): FilmScene[] {
  const end = visuallyCompleteAt(frames);
  const changes = frames.map(({ at, completeness }, index) => ({
    index,
    change:
      index === 0 || at === end
        ? Infinity
        : Math.abs(completeness - frames[index - 1]!.completeness),
  }));
  const kept = changes
    .filter(({ change }) => change >= leastChange)
    .sort((a, b) => b.change - a.change)
    .slice(0, most)
    .sort((a, b) => a.index - b.index);
  return kept.map(({ index }, position) => {
    const frame = frames[index]!;
    const before = position === 0 ? -Infinity : frames[kept[position - 1]!.index]!.at;
    const arrived = arrivals.filter(({ at }) => at > before && at <= frame.at);
    return { frame, arrived };
  });
}

/** A smaller change of completeness is hardly seen. */
const leastChange = 0.01;
