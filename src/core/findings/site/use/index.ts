import { neededByFew } from './needed-by-few.js';
import { unusedFont } from './unused-font.js';
import { unusedPreconnect } from './unused-preconnect.js';
import { unusedPreload } from './unused-preload.js';
import { unusedScript } from './unused-script.js';
import { unusedStyle } from './unused-style.js';

/** Findings on what pages are sent and do not use. */
export const useFindings = [
  unusedStyle,
  unusedScript,
  neededByFew,
  unusedPreload,
  unusedPreconnect,
  unusedFont,
] as const;
