import type { FindingsView } from '../views/findings.js';
import { findingTitle } from '../words/findings.js';
import { count, formatBytes } from '../words/units.js';
import { escaped } from './markdown.js';

/** The findings of a survey by kind as a Markdown table. */
export function findingsMarkdown({ rows, top }: FindingsView): string {
  const line = (texts: readonly string[]) => `| ${texts.map(escaped).join(' | ')} |`;
  return [
    line(['finding', 'what', 'for', 'in', 'pages', 'bytes/visit', 'worst']),
    line(['---', '---', '---', '---', '---:', '---:', '---']),
    ...rows
      .slice(0, top)
      .map((row) =>
        line([
          row.id,
          findingTitle(row.id),
          row.doer ?? '–',
          count(row.count, row.about),
          String(row.pages),
          row.bytesPerVisit === null ? '–' : formatBytes(row.bytesPerVisit),
          row.worst,
        ]),
      ),
  ].join('\n');
}
