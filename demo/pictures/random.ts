/** Numbers in [0, 1) that are the same for the same seed, on every machine. */
export type Random = () => number;

/** The generator `mulberry32`, by Tommy Ettinger: 32 bits of state, good enough to paint with. */
export function seeded(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A number between `low` and `high`. */
export function between(random: Random, low: number, high: number): number {
  return low + random() * (high - low);
}

/** One of several. */
export function pick<Item>(random: Random, items: readonly Item[]): Item {
  return items[Math.floor(random() * items.length)]!;
}
