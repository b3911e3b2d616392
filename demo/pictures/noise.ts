import type { Random } from './random.js';

const grid = 64;

/** Smooth noise in [0, 1): values on a grid that repeats, joined by smooth steps, in octaves. */
export function smoothNoise(random: Random): (x: number, y: number, octaves: number) => number {
  const lattice = Float32Array.from({ length: grid * grid }, () => random());
  const at = (x: number, y: number) => lattice[(y & (grid - 1)) * grid + (x & (grid - 1))]!;
  const one = (x: number, y: number) => {
    const left = Math.floor(x);
    const top = Math.floor(y);
    const across = x - left;
    const down = y - top;
    const u = across * across * (3 - 2 * across);
    const v = down * down * (3 - 2 * down);
    const upper = at(left, top) * (1 - u) + at(left + 1, top) * u;
    const lower = at(left, top + 1) * (1 - u) + at(left + 1, top + 1) * u;
    return upper * (1 - v) + lower * v;
  };
  return (x, y, octaves) => {
    let sum = 0;
    let weight = 0.5;
    let frequency = 1;
    for (let octave = 0; octave < octaves; octave++) {
      sum += weight * one(x * frequency, y * frequency);
      weight /= 2;
      frequency *= 2;
    }
    return sum / (1 - weight * 2);
  };
}

/** Adds film grain in place: an equal amount on all three channels, the same bytes every time. */
export function addGrain(pixels: Uint8Array, seed: number, strength: number): void {
  let state = seed | 1;
  for (let at = 0; at + 2 < pixels.length; at += 3) {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    // The sum of two bytes is close enough to a bell.
    const bell = (state & 255) + ((state >>> 8) & 255) - 255;
    const grain = (bell * strength) / 255;
    for (let channel = at; channel < at + 3; channel++) {
      const value = pixels[channel]! + grain;
      pixels[channel] = value < 0 ? 0 : value > 255 ? 255 : value;
    }
  }
}
