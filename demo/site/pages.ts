import { home } from './home.js';
import { journal } from './journal.js';
import type { Page } from './layout.js';
import { museum, museumFrame } from './museum.js';
import { makersPages } from './makers.js';
import { gallery, gettingThere } from './places.js';
import { programme } from './programme.js';

/** Every page of the site, each under its own path. */
export const pages: readonly Page[] = [
  home,
  ...programme,
  ...makersPages,
  ...journal,
  gallery,
  gettingThere,
  museum,
  museumFrame,
];
