import type { WorkItem } from '../../core/refit/work/work-item.js';
import { checkOf } from '../words/work-item.js';
import { csvOf } from './csv.js';

/** A work list as CSV (RFC 4180): one row a fix. */
export function worklistCsv(items: readonly WorkItem[]): string {
  return csvOf(
    items.map((item) => ({
      id: item.id,
      who: item.who,
      what: item.what,
      image: item.url,
      images: item.images,
      template: item.where ?? '',
      pages: item.pages.length,
      page: item.pages[0] ?? '',
      selector: item.selector,
      from: item.from,
      to: item.to,
      saved_per_visit: Math.round(item.savedPerVisit),
      check: checkOf(item),
      all_pages: item.pages.join(' '),
    })),
  );
}
