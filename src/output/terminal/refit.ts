import { papers } from '../../core/refit-plan.js';
import type { Size } from '../../core/size.js';
import { formatSize } from '../../core/size.js';
import type { WorkItem } from '../../core/worklist.js';
import { plainText, shorten } from '../plain-text.js';
import { count, formatBytes, formatShare } from '../units.js';
import { paletteFor, table } from './style.js';
import type { Screen } from './style.js';

export interface RefitSheet {
  readonly folder: string;
  readonly files: readonly {
    readonly path: string;
    readonly from: Size & { readonly bytes: number; readonly mediaType: string };
    readonly to: Size & { readonly bytes: number; readonly format: string };
  }[];
  readonly kept: readonly { readonly url: string; readonly reason: string }[];
  readonly variants: readonly { readonly bytes: number }[];
  readonly worklist: readonly WorkItem[];
  readonly unchanged: number;
  readonly dryRun: boolean;
  readonly interrupted: boolean;
}

/** A refit as a page of text: one row a file, from what to what. */
export function drawRefit(sheet: RefitSheet, top: number, screen: Screen): string {
  const { bold, dim, yellow } = paletteFor(screen);
  const { folder, files, kept, variants, unchanged, dryRun, interrupted } = sheet;
  const from = files.reduce((sum, file) => sum + file.from.bytes, 0);
  const to = files.reduce((sum, file) => sum + file.to.bytes, 0);
  const shown = files.slice(0, top);
  const left = files.length - shown.length;
  const reasons = new Map<string, number>();
  for (const { reason } of kept) reasons.set(reason, (reasons.get(reason) ?? 0) + 1);
  return [
    ...(dryRun ? [yellow('Nothing was written; this is what would be:')] : []),
    `${count(files.length, 'image file')} in ${bold(folder)}: ${formatBytes(from)} became ${bold(formatBytes(to))} (${formatShare(to, from)} of what it was)`,
    ...(variants.length > 0 ? [variantLine(sheet)] : []),
    '',
    table(
      screen,
      [
        { title: 'file' },
        { title: 'from', align: 'right' },
        { title: '' },
        { title: 'bytes', align: 'right' },
        { title: 'to', align: 'right' },
        { title: '' },
        { title: 'bytes', align: 'right' },
      ],
      shown.map((file) => [
        shorten(file.path, Math.max(20, screen.width - 62)),
        formatSize(file.from),
        file.from.mediaType.replace('image/', ''),
        formatBytes(file.from.bytes),
        formatSize(file.to),
        file.to.format,
        formatBytes(file.to.bytes),
      ]),
    ),
    ...(left > 0
      ? [dim(`${count(left, 'more file')}: --top ${files.length} shows them all.`)]
      : []),
    '',
    ...[...reasons].map(([reason, times]) =>
      dim(`${count(times, 'image file')} left as they are: ${plainText(reason)}`),
    ),
    ...(unchanged > 0
      ? [dim(`${count(unchanged, 'file')} had been written before and were right.`)]
      : []),
    ...(interrupted ? [yellow('Stopped: run refit again for the files that are missing.')] : []),
    ...workLines(sheet, screen),
  ].join('\n');
}

function variantLine({ variants }: RefitSheet): string {
  const bytes = variants.reduce((sum, variant) => sum + variant.bytes, 0);
  return `and ${count(variants.length, 'more file')} for narrower slots and older browsers: ${formatBytes(bytes)}`;
}

/** So many fixes are shown; the work list has them all. */
const shownFixes = 5;

/** The fixes that spare the most, and where everything is handed over. */
function workLines({ worklist, folder, dryRun }: RefitSheet, screen: Screen): string[] {
  const { bold, dim } = paletteFor(screen);
  const rows = worklist
    .slice(0, shownFixes)
    .map(({ savedPerVisit, who, what, url }) => [
      formatBytes(savedPerVisit),
      who,
      plainText(what),
      shorten(URL.canParse(url) ? new URL(url).pathname : url, 44),
    ]);
  const columns = [
    { title: 'saved a visit', align: 'right' as const },
    { title: 'who' },
    { title: 'what' },
    { title: 'image' },
  ];
  return [
    '',
    bold('What is to be done'),
    table(screen, columns, rows),
    ...(worklist.length > rows.length
      ? [
          dim(
            `${count(worklist.length - rows.length, 'more fix', 'more fixes')} in ${papers.worklistMarkdown}`,
          ),
        ]
      : []),
    ...(dryRun
      ? []
      : [
          '',
          `In ${folder}: ${papers.worklistMarkdown} and ${papers.worklistCsv}, ${papers.snippets} (markup to paste), ${papers.rewrites} (old address to new), ${papers.manifest}`,
        ]),
  ];
}
