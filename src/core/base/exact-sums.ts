/** The smallest part of a whole number that is told apart: 2⁻⁵². */
const grains = 2 ** 52;

/**
 * Sums of numbers that are not negative, which do not depend on the order in which they are added: parts of a sum, added
 * up in any way, are the sum. Each number is rounded to a multiple of 2⁻⁵², and sums up to 2⁵³ lose nothing more: whole
 * numbers and the rest are added up apart, both exactly.
 */
export class ExactSums {
  /** For each sum its whole part, then the grains of the rest. */
  readonly numbers: Float64Array;

  /** @param numbers of other sums, as they had them */
  constructor(count: number, numbers: Float64Array = new Float64Array(count * 2)) {
    this.numbers = numbers;
  }

  get length(): number {
    return this.numbers.length / 2;
  }

  add(at: number, value: number): void {
    if (value === 0) return;
    const whole = Math.floor(value);
    this.#add(at, whole, Math.round((value - whole) * grains));
  }

  /** Adds one of the sums of others. */
  addSum(at: number, { numbers }: ExactSums, from: number): void {
    this.#add(at, numbers[from * 2]!, numbers[from * 2 + 1]!);
  }

  #add(at: number, whole: number, rest: number): void {
    const { numbers } = this;
    const sum = numbers[at * 2 + 1]! + rest;
    const carried = sum >= grains ? 1 : 0;
    numbers[at * 2]! += whole + carried;
    numbers[at * 2 + 1] = carried === 1 ? sum - grains : sum;
  }

  at(at: number): number {
    return this.numbers[at * 2]! + this.numbers[at * 2 + 1]! / grains;
  }

  /** The same sums, and as many more. */
  extended(): ExactSums {
    const more = new ExactSums(this.length * 2);
    more.numbers.set(this.numbers);
    return more;
  }

  clear(at: number): void {
    this.numbers[at * 2] = 0;
    this.numbers[at * 2 + 1] = 0;
  }
}
