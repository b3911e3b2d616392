/** A line between the visitor and the servers, free of loss. */
export interface Network {
  readonly name: string;
  /** Milliseconds of a round trip, added to the real one. */
  readonly latency: number;
  /** Kilobits a second towards the visitor; 0 is unlimited. */
  readonly down: number;
  /** Kilobits a second from the visitor; 0 is unlimited. */
  readonly up: number;
}

/** The line as it is. */
export const unshaped: Network = { name: 'none', latency: 0, down: 0, up: 0 };

/** Lines that can be called by name, from the slowest to the fastest. */
export const builtInNetworks: readonly Network[] = [
  { name: 'slow-mobile', latency: 320, down: 500, up: 200 },
  { name: 'mobile', latency: 120, down: 3000, up: 1000 },
  { name: 'fast-mobile', latency: 55, down: 24000, up: 8000 },
  { name: 'dsl', latency: 45, down: 6000, up: 800 },
  { name: 'cable', latency: 25, down: 40000, up: 8000 },
  { name: 'fibre', latency: 8, down: 200000, up: 100000 },
  unshaped,
];

/** A line in words: `mobile (120 ms, 3000 kbit/s down, 1000 up)`. */
export function describeNetwork({ name, latency, down, up }: Network): string {
  if (latency === 0 && down === 0 && up === 0) return `${name} (not shaped)`;
  const rate = (kilobits: number) => (kilobits === 0 ? 'unlimited' : `${kilobits} kbit/s`);
  return `${name} (${latency} ms, ${rate(down)} down, ${rate(up)} up)`;
}
