import { asMarkup } from '../../core/base/markup-text.js';
import { plainText } from '../words/plain-text.js';

/** Coordinates are written to a tenth of a pixel. */
export function round(value: number): number {
  return Math.round(value * 10) / 10;
}

export function line(x1: number, y1: number, x2: number, y2: number, style: string): string {
  const [a, b, c, d] = [x1, y1, x2, y2].map(round);
  return `<line x1="${a}" y1="${b}" x2="${c}" y2="${d}" ${style}/>`;
}

export function box(x: number, y: number, width: number, height: number, style: string): string {
  const [a, b, c, d] = [x, y, width, height].map(round);
  return `<rect x="${a}" y="${b}" width="${c}" height="${d}" ${style}/>`;
}

export function text(x: number, y: number, words: string, style: string): string {
  return `<text x="${round(x)}" y="${round(y)}" ${style}>${escaped(words)}</text>`;
}

/** Foreign words made safe for markup: bounded, escaped, without closing tags. */
export function escaped(words: string): string {
  return asMarkup(plainText(words, 240));
}

/** A picture of this size on white, with a typeface that is everywhere. */
export function drawing(width: number, height: number, parts: readonly string[]): string {
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="system-ui, Liberation Sans, Arial, sans-serif" font-size="12">`,
    '<rect width="100%" height="100%" fill="#fff"/>',
    ...parts,
    '</svg>',
    '',
  ].join('\n');
}

/** Round numbers from 0 on, about so many or somewhat fewer. */
export function ticks(most: number, about = 4): number[] {
  const rough = most / about;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((factor) => factor * power).find((one) => one >= rough) ?? rough;
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, index) => index * step);
}
