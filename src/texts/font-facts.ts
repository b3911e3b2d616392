import type { FontFacts } from '../core/survey/resource.js';

/** The formats of fonts by their first four bytes. */
const signatures: Readonly<Record<string, FontFacts['format']>> = {
  wOF2: 'WOFF2',
  wOFF: 'WOFF',
  OTTO: 'OpenType',
  true: 'TrueType',
  '\0\x01\0\0': 'TrueType',
};

export function fontFormatOf(body: Buffer): FontFacts['format'] {
  return signatures[body.toString('latin1', 0, 4)] ?? null;
}

/** Bytes of a font as WOFF2; `null` where it cannot be made. */
export async function asWoff2(body: Buffer): Promise<number | null> {
  try {
    const { convert } = (await import('fontverter')).default;
    return (await convert(body, 'woff2')).length;
  } catch {
    return null;
  }
}

/** Bytes of a font as WOFF2 with the glyphs of some characters alone; `null` where it cannot be made. */
export async function subsetBytes(body: Buffer, characters: string): Promise<number | null> {
  try {
    const subset = (await import('subset-font')).default;
    return (await subset(body, characters, { targetFormat: 'woff2' })).length;
  } catch {
    return null;
  }
}
