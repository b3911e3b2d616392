import type { Finding } from '../image/finding.js';
import { heavyPage } from './heavy-page.js';
import type { PageCheck, PageCase } from './page-case.js';
import { manySlides } from './many-slides.js';

/** Every check of a page there is; a new one is a file here and a word in this list. */
const checks: readonly PageCheck[] = [heavyPage, manySlides];

/** What all checks find on one page. */
export function pageFindingsOf(page: PageCase): Finding[] {
  return checks.flatMap((check) => check(page) ?? []);
}
