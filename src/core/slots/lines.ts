/** A straight line: `slope × x + base`. */
export interface Line {
  readonly slope: number;
  readonly base: number;
}

/** Where two lines meet; `undefined` where they do not. */
export function meetingOf(one: Line | undefined, other: Line | undefined): number | undefined {
  if (!one || !other || one.slope === other.slope) return undefined;
  return (other.base - one.base) / (one.slope - other.slope);
}
