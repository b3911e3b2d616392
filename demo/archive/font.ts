import { createRequire } from 'node:module';
import opentype from 'opentype.js';

interface FontConverter {
  readonly convert: (font: Buffer, format: 'sfnt' | 'woff' | 'woff2') => Promise<Buffer>;
}

/** The letters that the archive writes with its own fonts. */
export const letters = 'Brindle Bay Kite Festival 0123456789';

/**
 * A font drawn by numbers, whose glyphs are kites with tails.
 *
 * @param seed makes another font of each number
 * @param extra how many characters it has besides the letters
 */
export function drawFont(seed: number, extra: number): Buffer {
  const { Font, Glyph, Path } = opentype;
  const glyph = (name: string, unicode: number, number: number) => {
    const path = new Path();
    path.moveTo(300, 0);
    // A tail of points that hardly compress.
    for (let at = 1; at <= 24; at++)
      path.lineTo(
        ((number * 7919 + at * 104_729) % 600) + 0.5,
        (number * 31 + at * 27_644_437) % 700,
      );
    path.close();
    return new Glyph({ name, unicode, advanceWidth: 650, path });
  };
  const codes = [
    ...new Set([...letters].map((letter) => letter.codePointAt(0)!)),
    ...Array.from({ length: extra }, (_, at) => 0x4e00 + at),
  ].sort((a, b) => a - b);
  const missing = new Glyph({ name: '.notdef', advanceWidth: 650, path: new Path() });
  const font = new Font({
    familyName: `Brindle ${seed}`,
    styleName: 'Regular',
    ...{ unitsPerEm: 1000, ascender: 800, descender: -200 },
    glyphs: [
      missing,
      ...codes.map((code, at) => glyph(`k${code.toString(16)}`, code, seed * 1_000 + at + 1)),
    ],
  });
  return Buffer.from(font.toArrayBuffer());
}

const require = createRequire(import.meta.url);

export function asWebFont(font: Buffer, format: 'woff' | 'woff2'): Promise<Buffer> {
  return (require('fontverter') as FontConverter).convert(font, format);
}
