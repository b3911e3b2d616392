import { familyOf } from './family.js';
import { groupRows } from './groupings.js';
import type { Ranking } from './ranking.js';

/**
 * The widths that each file is to be offered in: those of the plans of all slot families that show it, by its place in
 * the list of files.
 *
 * @param most widths of a family
 */
export function familyWidths(
  ranking: Pick<Ranking, 'ledger'>,
  most: number,
): (place: number) => readonly number[] {
  const { ledger } = ranking;
  const widths = new Map<number, Set<number>>();
  for (const row of groupRows(ranking, ledger.rows, 'family')) {
    if (row.thirdParty) continue;
    const { plan } = familyOf(row, ranking, most);
    for (const delivery of row.rows) {
      if (ledger.deciding[delivery]! < 0) continue;
      const file = ledger.file[delivery]!;
      const known = widths.get(file) ?? new Set();
      for (const width of plan.widths) known.add(width);
      widths.set(file, known);
    }
  }
  return (place) => [...(widths.get(place) ?? [])];
}
