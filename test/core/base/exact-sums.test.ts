import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ExactSums } from '../../../src/core/base/exact-sums.js';

const anyNumber = fc.oneof(
  fc.double({ min: 0, max: 1e12, noNaN: true }),
  fc.double({ min: 0, max: 1e-6, noNaN: true }),
);

function sumOf(numbers: readonly number[]): ExactSums {
  const sums = new ExactSums(1);
  for (const number of numbers) sums.add(0, number);
  return sums;
}

describe('exact sums', () => {
  it('are the same in every order, and put together from parts', () => {
    fc.assert(
      fc.property(fc.array(anyNumber), fc.array(anyNumber), (some, others) => {
        const whole = sumOf([...some, ...others]);
        const parts = sumOf(others.toReversed());
        parts.addSum(0, sumOf(some.toSorted((a, b) => b - a)), 0);
        expect(parts.numbers).toEqual(whole.numbers);
      }),
    );
  });

  it('are nearer to the truth than plain sums', () => {
    const sums = new ExactSums(2);
    sums.add(1, 2 ** 52);
    for (let times = 0; times < 1_000; times++) sums.add(1, 0.1);
    expect(sums.at(1)).toBe(2 ** 52 + 100);
    expect(sums.at(0)).toBe(0);
    sums.clear(1);
    expect(sums.at(1)).toBe(0);
  });
});
