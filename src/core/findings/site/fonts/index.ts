import { fontCharacters } from './font-characters.js';
import { fontPreload } from './font-preload.js';
import { hiddenText } from './hidden-text.js';
import { lateFont } from './late-font.js';
import { manyFonts } from './many-fonts.js';
import { oldFont } from './old-font.js';

/** Findings on fonts. */
export const fontFindings = [
  oldFont,
  fontCharacters,
  fontPreload,
  hiddenText,
  lateFont,
  manyFonts,
] as const;
