import { compress } from './compress.js';
import { defer } from './defer.js';
import { dimensions } from './dimensions.js';
import { early } from './early.js';
import { files } from './files.js';
import type { Fix } from './fix.js';
import { flatImports } from './flat-imports.js';
import { images } from './images.js';
import { lazy } from './lazy.js';
import { lifetimes } from './lifetimes.js';
import { minify } from './minify.js';
import { multiplex } from './multiplex.js';
import { responsive } from './responsive.js';
import { sheet } from './sheet.js';
import { stylesFirst } from './styles-first.js';
import { withoutHosts } from './without-hosts.js';

/**
 * Every fix, in the sequence in which they are applied: what finds elements by their place in the document comes ahead of
 * what moves elements, and what a person made by hand comes last.
 */
export const allFixes: readonly Fix[] = [
  dimensions,
  lazy,
  early,
  responsive,
  sheet,
  images,
  withoutHosts,
  defer,
  flatImports,
  stylesFirst,
  minify,
  compress,
  lifetimes,
  multiplex,
  files,
];
