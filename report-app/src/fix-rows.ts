import type { Found, Report, ReportRow } from './data.js';

/** A row of the table of fixes: the slots of a family, or a finding on how pages are put together and sent. */
export interface FixRow {
  /** The same as long as the report is the same. */
  readonly id: string;
  readonly kind: 'images' | 'finding';
  /** Place among the families, or among what was found. */
  readonly at: number;
  readonly name: string;
  readonly where: string;
  readonly who: string;
  /** Image files; 0 for a finding. */
  readonly images: number;
  readonly pages: number;
  /** Of an average visit; `null` where the cost is none of it. */
  readonly bytes: number | null;
  readonly time: number | null;
  /** What is searched, in lower case. */
  readonly text: string;
}

export function fixRows(report: Report): FixRow[] {
  const rows = [
    ...report.rank.rows.map((row, at) => familyRow(report, row, at)),
    ...report.found.map((found, at) => findingRow(found, at)),
  ];
  return rows.sort((a, b) => (b.bytes ?? 0) - (a.bytes ?? 0));
}

function familyRow(report: Report, row: ReportRow, at: number): FixRow {
  const { name, images } = report.families[at]!;
  const where = row.family?.where ?? '';
  const urls = images.slice(0, 50).map((image) => report.rank.images[image]?.url ?? '');
  return {
    ...{ id: `images-${at}`, kind: 'images', at, name, where },
    who: row.thirdParty ? 'third party' : 'content',
    ...{ images: row.files, pages: row.pages },
    ...{ bytes: row.perVisit.wasteBytes, time: felt(row.spared?.largestContentfulPaint) },
    text: [name, where, ...urls].join('\n').toLowerCase(),
  };
}

function findingRow(found: Found, at: number): FixRow {
  const { id, title, url, group, doer, thirdParty, pages, bytesPerVisit, timePerVisit } = found;
  return {
    ...{ id: `finding-${at}`, kind: 'finding', at, name: title, where: group ?? url },
    who: thirdParty ? 'third party' : (doer ?? '–'),
    ...{ images: 0, pages: pages.length, bytes: bytesPerVisit, time: timePerVisit },
    text: [id, title, url, group ?? '', found.message].join('\n').toLowerCase(),
  };
}

/** A time that is one; nothing is told of pages that were not timed. */
function felt(milliseconds: number | null | undefined): number | null {
  return milliseconds != null && milliseconds >= 1 ? milliseconds : null;
}
