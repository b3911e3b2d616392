import type { Finding, FindingData } from '../finding.js';
import { heavyPage } from './heavy-page.js';
import { manySlides } from './many-slides.js';
import type { PageCase, PageFinding } from './page-case.js';

/** Every kind of finding about pages, in the sequence in which they are listed. */
export const pageFindings = [heavyPage, manySlides] as const;

export type PageFindingId = (typeof pageFindings)[number]['id'];

/** The findings of all checks on one page. */
export function pageFindingsOf(page: PageCase): Finding<PageFindingId>[] {
  const kinds: readonly PageFinding<PageFindingId, FindingData>[] = pageFindings;
  return kinds.flatMap((kind) => {
    const data = kind.check(page);
    return data === undefined ? [] : { id: kind.id, data };
  });
}
