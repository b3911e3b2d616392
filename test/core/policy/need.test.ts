import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { needOf } from '../../../src/core/policy/need.js';
import type { ObjectFit } from '../../../src/core/slots/rendered-size.js';

const policy = { density: 2 };
const fits: ObjectFit[] = ['fill', 'contain', 'cover', 'none', 'scale-down'];

describe('needOf', () => {
  it('is rendered size times density', () => {
    const shown = { slot: { width: 300, height: 200 }, fit: 'fill' as const, density: 1.5 };
    expect(needOf(shown, { width: 3000, height: 2000 }, policy)).toEqual({
      width: 450,
      height: 300,
    });
  });

  it('allows for no more density than the policy does', () => {
    const shown = { slot: { width: 300, height: 200 }, fit: 'fill' as const, density: 3 };
    expect(needOf(shown, { width: 3000, height: 2000 }, policy)).toEqual({
      width: 600,
      height: 400,
    });
  });

  it('never asks for more pixels than the file has', () => {
    const shown = { slot: { width: 900, height: 600 }, fit: 'fill' as const, density: 2 };
    expect(needOf(shown, { width: 300, height: 200 }, policy)).toEqual({ width: 300, height: 200 });
  });

  it('counts the parts that a covered slot cuts off', () => {
    const shown = { slot: { width: 100, height: 100 }, fit: 'cover' as const, density: 1 };
    expect(needOf(shown, { width: 3000, height: 1000 }, policy)).toEqual({
      width: 300,
      height: 100,
    });
  });

  it('serves the more demanding side of a distorted picture', () => {
    const shown = { slot: { width: 500, height: 100 }, fit: 'fill' as const, density: 1 };
    expect(needOf(shown, { width: 1000, height: 1000 }, policy)).toEqual({
      width: 500,
      height: 500,
    });
  });

  it('is whole, at least 1×1, within the file, and in its ratio to a pixel', () => {
    const side = fc.integer({ min: 1, max: 6000 });
    const length = fc.double({ min: 0, max: 4000, noNaN: true });
    fc.assert(
      fc.property(side, side, length, length, fc.constantFrom(...fits), (w, h, x, y, fit) => {
        const need = needOf(
          { slot: { width: x, height: y }, fit, density: 2 },
          { width: w, height: h },
          policy,
        );
        expect(Number.isInteger(need.width) && Number.isInteger(need.height)).toBe(true);
        expect(need.width).toBeGreaterThanOrEqual(1);
        expect(need.width).toBeLessThanOrEqual(w);
        expect(need.height).toBeLessThanOrEqual(h);
        expect(Math.abs(need.width - (need.height * w) / h)).toBeLessThanOrEqual(1 + w / h);
      }),
    );
  });
});
