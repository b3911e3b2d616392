import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  completenessOf,
  momentAt,
  scenesOf,
  unfinishedTime,
  visuallyCompleteAt,
} from '../../../src/core/pixels/film.js';

/** A picture of two pixels across. */
const luma = (...values: readonly number[]) => ({
  width: 2,
  height: values.length / 2,
  values: Uint8Array.from(values),
});

const byte = fc.integer({ min: 0, max: 255 });
const anyFrame = fc.array(byte, { minLength: 8, maxLength: 8 }).map((values) => luma(...values));

describe('visual completeness', () => {
  it('is what a frame still lacks of the last one, as part of what the first lacks', () => {
    const white = luma(255, 255, 255, 255);
    const frames = [
      white,
      luma(255, 255, 55, 255),
      luma(155, 255, 55, 255),
      luma(155, 155, 55, 155),
    ];
    const expected = [0, 1 - 300 / 500, 1 - 200 / 500, 1];
    completenessOf(frames).forEach((one, at) => expect(one).toBeCloseTo(expected[at]!, 12));
  });

  it('begins with nothing, ends with all, and stays between, whatever is shown', () => {
    fc.assert(
      fc.property(fc.array(anyFrame, { minLength: 1, maxLength: 12 }), (frames) => {
        const found = completenessOf(frames);
        expect(found).toHaveLength(frames.length);
        expect(found.at(-1)).toBe(1);
        for (const one of found) {
          expect(one).toBeGreaterThanOrEqual(0);
          expect(one).toBeLessThanOrEqual(1);
        }
        const changed = completenessOf([frames[0]!, ...frames]).some((one) => one < 1);
        if (changed) expect(found[0]).toBe(0);
      }),
    );
  });

  it('is whole where nothing ever changed, and nothing where the page has another size', () => {
    const one = luma(1, 2);
    expect(completenessOf([one, one])).toEqual([1, 1]);
    expect(completenessOf([])).toEqual([]);
    const grown = luma(1, 2, 3, 4);
    expect(completenessOf([one, one, grown])).toEqual([0, 0, 1]);
  });
});

describe('a film', () => {
  const moments = [
    { at: 0, completeness: 0 },
    { at: 400, completeness: 0.5 },
    { at: 500, completeness: 1 },
    { at: 900, completeness: 0.9 },
    { at: 1_000, completeness: 0.998 },
    { at: 1_500, completeness: 1 },
  ];

  it('comes to the time for which the page was unfinished', () => {
    expect(unfinishedTime(moments)).toBeCloseTo(400 + 0.5 * 100 + 0.1 * 100 + 0.002 * 500, 9);
    expect(unfinishedTime([])).toBeNull();
  });

  it('is complete when it looks like the end for good, but for grain', () => {
    expect(visuallyCompleteAt(moments)).toBe(1_000);
    expect(visuallyCompleteAt([{ at: 0, completeness: 1 }])).toBe(0);
    expect(visuallyCompleteAt([])).toBeNull();
  });

  it('is unfinished no longer than it takes to be complete', () => {
    const anyMoments = fc
      .array(
        fc.tuple(fc.integer({ min: 1, max: 500 }), fc.double({ min: 0, max: 1, noNaN: true })),
        {
          minLength: 1,
          maxLength: 20,
        },
      )
      .map((steps) => {
        let at = 0;
        const found = [{ at: 0, completeness: 0 }];
        for (const [apart, completeness] of steps) found.push({ at: (at += apart), completeness });
        return [...found, { at: at + 1, completeness: 1 }];
      });
    fc.assert(
      fc.property(anyMoments, (some) => {
        const grain = some.at(-1)!.at * 0.005;
        expect(unfinishedTime(some)!).toBeLessThanOrEqual(visuallyCompleteAt(some)! + grain);
      }),
    );
  });

  it('shows at a time what was shown last before it', () => {
    expect([0, 399, 400, 899, 5_000].map((time) => momentAt(moments, time)!.at)).toEqual([
      0, 0, 400, 500, 1_500,
    ]);
  });

  it('shows the frames at which most changed, each with what had arrived by then', () => {
    const frame = (at: number, completeness: number) => ({
      at,
      completeness,
      picture: new Uint8Array(),
    });
    const arrival = (at: number, name: string) => ({ at, url: name, type: 'image', bytes: 1 });
    const film = {
      frames: [frame(0, 0), frame(100, 0.5), frame(150, 0.505), frame(400, 0.6), frame(900, 1)],
      arrivals: [arrival(80, 'a'), arrival(120, 'b'), arrival(880, 'c'), arrival(2_000, 'late')],
    };
    const told = (most: number) =>
      scenesOf(film, most).map(({ frame: { at }, arrived }) => [at, arrived.map(({ url }) => url)]);
    expect(told(7)).toEqual([
      [0, []],
      [100, ['a']],
      [400, ['b']],
      [900, ['c']],
    ]);
    expect(told(3)).toEqual([
      [0, []],
      [100, ['a']],
      [900, ['b', 'c']],
    ]);
  });
});
