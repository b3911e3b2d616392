import type { WorkItem } from '../../core/refit/work-item.js';
import { csvOf } from './csv.js';

/** A work list as CSV (RFC 4180): one row a fix. */
export function worklistCsv(items: readonly WorkItem[]): string {
  return csvOf(
    items.map(({ who, what, url, pages, selector, from, to, savedPerVisit }) => ({
      who,
      what,
      image: url,
      pages: pages.length,
      page: pages[0] ?? '',
      selector,
      from,
      to,
      saved_per_visit: Math.round(savedPerVisit),
      all_pages: pages.join(' '),
    })),
  );
}
