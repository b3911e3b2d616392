import type { FindingsView } from '../views/findings.js';
import { findingCells } from '../words/findings.js';
import { escaped } from './markdown.js';

/** The findings of a survey by kind as a Markdown table. */
export function findingsMarkdown({ rows, top }: FindingsView): string {
  const line = (texts: readonly string[]) => `| ${texts.map(escaped).join(' | ')} |`;
  return [
    line(['finding', 'what', 'for', 'in', 'pages', 'bytes/visit', 'time/visit', 'worst']),
    line(['---', '---', '---', '---', '---:', '---:', '---:', '---']),
    ...rows.slice(0, top).map((row) => line([...findingCells(row), row.worst])),
  ].join('\n');
}
