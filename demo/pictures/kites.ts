import { between, pick } from './random.js';
import type { Random } from './random.js';

/** Sailcloth: pairs that stand well against a sky. */
const cloths = [
  ['#e4572e', '#f6c94c'],
  ['#17637a', '#f4efe2'],
  ['#c3305a', '#f7b2a0'],
  ['#f2a33a', '#3a2c52'],
  ['#2f8f6b', '#f6e27a'],
  ['#6b3fa0', '#f39ab7'],
  ['#d7263d', '#fdf6e3'],
  ['#0f4c81', '#ffb347'],
] as const;

/** One kite as SVG, about its middle, `size` high, with its tail and a line to the ground. */
export function kite(random: Random, x: number, y: number, size: number, ground: number): string {
  const [cloth, trim] = pick(random, cloths);
  const shape = pick(random, [diamond, delta, box, disc]);
  const turn = between(random, -28, 28);
  const fall = ground - y;
  const line = `<path d="M${x} ${y} q ${fall * 0.1} ${fall * 0.6} ${fall * 0.35} ${fall}" fill="none" stroke="#fff" stroke-opacity=".35" stroke-width="${Math.max(1, size / 90)}"/>`;
  return `${line}<g transform="translate(${x} ${y}) rotate(${turn}) scale(${size / 100})">${tail(random, trim)}${shape(cloth, trim)}</g>`;
}

function diamond(cloth: string, trim: string): string {
  return `<path d="M0-50 38-8 0 50-38-8Z" fill="${cloth}"/><path d="M0-50 38-8 0 0Z M0 0 0 50-38-8Z" fill="${trim}" fill-opacity=".85"/><path d="M0-50V50M-38-8H38" stroke="#2a2233" stroke-width="1.4" fill="none"/><path d="M0-50 38-8 0 50" fill="#000" fill-opacity=".1"/>`;
}

function delta(cloth: string, trim: string): string {
  return `<path d="M0-40 70 30 0 12-70 30Z" fill="${cloth}"/><path d="M0-40 24-12 6 13 0 12-6 13-24-12Z" fill="${trim}"/><path d="M44 4 70 30 36 21Z M-44 4-70 30-36 21Z" fill="${trim}"/><path d="M0-40V30" stroke="#2a2233" stroke-width="1.6"/><path d="M0-40 70 30 0 12Z" fill="#000" fill-opacity=".12"/>`;
}

function box(cloth: string, trim: string): string {
  return `<path d="M-34-46 10-54 36-40-8-30Z" fill="${trim}"/><path d="M-34-46-8-30V-6L-34-20Z" fill="${cloth}"/><path d="M-8-30 36-40V-16L-8-6Z" fill="${cloth}" fill-opacity=".8"/><path d="M-34 20-8 36V58L-34 42Z" fill="${trim}"/><path d="M-8 36 36 26V48L-8 58Z" fill="${cloth}"/><path d="M-34-46V42M-8-30V58M36-40V48M10-54V-12" stroke="#2a2233" stroke-width="1.6"/>`;
}

function disc(cloth: string, trim: string): string {
  const petals = Array.from(
    { length: 8 },
    (_, index) =>
      `<path d="M0 0 -18 -50 Q0 -62 18 -50Z" fill="${index % 2 ? cloth : trim}" transform="rotate(${index * 45})"/>`,
  );
  return `${petals.join('')}<circle r="11" fill="${cloth}"/><circle r="48" fill="none" stroke="#2a2233" stroke-opacity=".5" stroke-width="1.2"/>`;
}

function tail(random: Random, trim: string): string {
  const sway = between(random, -40, 40);
  const bows = Array.from({ length: 5 }, (_, index) => {
    const down = 70 + index * 22;
    const aside = sway * Math.sin((index + 1) * 0.9);
    return `<path d="M${aside - 9} ${down - 5}l18 10v-10l-18 10Z" fill="${trim}"/>`;
  });
  return `<path d="M0 48 C ${sway} 90 ${-sway} 130 ${sway} 180" fill="none" stroke="#3a2c42" stroke-width="1.6"/>${bows.join('')}`;
}
