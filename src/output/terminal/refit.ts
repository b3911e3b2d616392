import { ownFolders, refitPapers } from '../../core/refit/refit-job.js';
import type { PictureSize } from '../../core/refit/refit-job.js';
import { formatSize } from '../../core/base/size.js';
import type { RefitView } from '../views/refit.js';
import { plainText, shorten } from '../words/plain-text.js';
import { count, formatBytes, formatShare } from '../words/units.js';
import { paletteFor, table, wrapped } from './style.js';
import type { Screen } from './style.js';

/** A refit as a page of text: one row a file, from what to what, then what is to be done with them. */
export function drawRefit(view: RefitView, screen: Screen): string {
  const { bold, dim, yellow } = paletteFor(screen);
  const { folder, files, unchanged, dryRun, interrupted, top } = view;
  const left = files.length - Math.min(files.length, top);
  return [
    ...(dryRun ? [yellow('Nothing was written. This is what would be:')] : []),
    ...(files.length > 0 ? fileLines(view, screen) : [`No files were made in ${bold(folder)}.`]),
    ...(left > 0 ? [dim(`${count(left, 'more file')}; --top ${files.length} shows all.`)] : []),
    ...view.sheets.map(sheetLine),
    ...asideLines(view, screen),
    ...(unchanged > 0
      ? [dim(`${count(unchanged, 'file was', 'files were')} up to date already.`)]
      : []),
    ...(interrupted ? [yellow('Stopped. Run refit again to write the missing files.')] : []),
    ...markupLines(view, screen),
    ...workLines(view, screen),
    ...handOver(view),
  ].join('\n');
}

/** The sum of the files, then a row for each. */
function fileLines(view: RefitView, screen: Screen): string[] {
  const { bold } = paletteFor(screen);
  const { folder, files, top } = view;
  const from = files.reduce((sum, file) => sum + file.from.bytes, 0);
  const to = files.reduce((sum, file) => sum + file.to.bytes, 0);
  return [
    `${count(files.length, 'image file')} in ${bold(folder)}: ${formatBytes(from)} became ${bold(formatBytes(to))} (${formatShare(to, from)} of the original bytes)`,
    ...variantLines(view),
    ...masterLines(view),
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
      files
        .slice(0, top)
        .map((file) => [
          shorten(file.path, 50),
          pixels(file.from),
          plainText(file.from.mediaType.replace('image/', '')),
          formatBytes(file.from.bytes),
          pixels(file.to),
          file.to.format,
          formatBytes(file.to.bytes),
        ]),
    ),
  ];
}

/** Pixels as people write them; a vector has none. */
function pixels({ width, height }: PictureSize): string {
  return width === null || height === null ? '' : formatSize({ width, height });
}

function variantLines({ variants }: RefitView): string[] {
  if (variants.length === 0) return [];
  const bytes = variants.reduce((sum, variant) => sum + variant.bytes, 0);
  return [
    `plus ${count(variants.length, 'file')} in other widths and for older browsers: ${formatBytes(bytes)}`,
  ];
}

function masterLines({ files }: RefitView): string[] {
  const some = files.filter(({ pixelsFrom }) => pixelsFrom !== null);
  if (some.length === 0) return [];
  const first = shorten(some[0]!.pixelsFrom!, 70);
  return [
    some.length === 1
      ? `1 of them is made from a larger file of the same picture: ${first}`
      : `${some.length} of them are made from larger files of the same pictures, for example ${first}`,
  ];
}

function sheetLine({ path, pages, images, bytes }: RefitView['sheets'][number]): string {
  return `${path} joins ${images} small images of ${count(pages, 'page')}: ${images} requests become 1, ${formatBytes(bytes.before)} become ${formatBytes(bytes.after)}`;
}

/** Images that stay as they are, images not made, and images given another name. */
function asideLines({ kept, notMade, collisions }: RefitView, screen: Screen): string[] {
  const { yellow } = paletteFor(screen);
  const first = collisions.slice(0, 3).map(({ path }) => shorten(path, 60));
  return [
    ...counted(kept.map(({ reason }) => reason)).map(
      ([reason, times]) =>
        `${count(times, 'image stays as it is', 'images stay as they are')}${reasonOf(times, plainText(reason, 120))}`,
    ),
    ...counted(notMade.map(({ reason }) => reason)).map(
      ([reason, times]) =>
        `${count(times, 'file was not made', 'files were not made')}${reasonOf(times, reason)}`,
    ),
    ...(first.length > 0
      ? [
          yellow(
            wrapped(
              `${count(collisions.length, 'file has', 'files have')} a longer name, because another file has the usual one and is still asked for: see ${first.join(', ')}${collisions.length > 3 ? ' …' : ''}`,
              screen,
            ),
          ),
        ]
      : []),
  ];
}

function reasonOf(times: number, reason: string): string {
  return times === 1 ? `: ${reason}` : `; the reason for each: ${reason}`;
}

function counted(reasons: readonly string[]): [string, number][] {
  const times = new Map<string, number>();
  for (const reason of reasons) times.set(reason, (times.get(reason) ?? 0) + 1);
  return [...times].sort(([, a], [, b]) => b - a);
}

/** Fixes that are shown; the work list has them all. */
const shownFixes = 5;

/** The fixes that spare the most. */
function workLines({ worklist }: RefitView, screen: Screen): string[] {
  if (worklist.length === 0) return [];
  const { bold, dim } = paletteFor(screen);
  const rows = worklist
    .slice(0, shownFixes)
    .map(({ savedPerVisit, who, what, url }) => [
      savedPerVisit > 0 ? formatBytes(savedPerVisit) : '–',
      who,
      plainText(what, 72),
      shorten(URL.canParse(url) ? new URL(url).pathname : url, 44),
    ]);
  const columns = [
    { title: 'saved/visit', align: 'right' as const },
    { title: 'who' },
    { title: 'what', wraps: true, least: 30 },
    { title: 'image' },
  ];
  const more = worklist.length - rows.length;
  return [
    '',
    bold('To do'),
    table(screen, columns, rows),
    ...(more > 0
      ? [dim(`${count(more, 'more fix', 'more fixes')} in ${refitPapers.worklistMarkdown}`)]
      : []),
  ];
}

/** Where everything is. */
/** How much of the markup was tried in its pages, and what did not hold. */
function markupLines({ markup }: RefitView, screen: Screen): string[] {
  if (!markup || markup.snippets + markup.withheld === 0) return [];
  const { yellow } = paletteFor(screen);
  const { snippets, proved, withheld, untried } = markup;
  const reason = untried === null ? '' : `: ${plainText(untried, 120)}`;
  const tried =
    proved === 0
      ? `${count(snippets, 'snippet')} of markup, none of them tried in its page${reason}`
      : `${count(snippets, 'snippet')} of markup, ${proved} of them tried in their pages, in every view`;
  return [
    tried,
    ...(withheld > 0
      ? [
          yellow(
            `${count(withheld, 'element has', 'elements have')} no snippet: ${refitPapers.snippets} says why`,
          ),
        ]
      : []),
  ];
}

function handOver({ folder, papers: written, zipped, dryRun, files }: RefitView): string[] {
  if (dryRun) return [];
  const has = (name: string) => written.some(({ path }) => path === name);
  const lines = [
    has(refitPapers.worklistMarkdown) &&
      `${refitPapers.worklistMarkdown}, .csv  what to do, by person`,
    has(refitPapers.tickets) && `${refitPapers.tickets}  the same as texts of tickets`,
    `${refitPapers.snippets}${has(refitPapers.snippetsJson) ? ', .json' : ''}  markup to change`,
    `${refitPapers.rewrites}  old addresses and the new files`,
    has(refitPapers.nginx) &&
      `${ownFolders.server}  rules for nginx and Apache that choose the format`,
    has(refitPapers.review) && `${refitPapers.review}, .png  originals and refits side by side`,
    `${refitPapers.manifest}  what was written`,
  ].flatMap((line) => (line ? [line.split('  ') as [string, string]] : []));
  const wide = Math.max(...lines.map(([name]) => name.length));
  return [
    '',
    `In ${folder}:`,
    ...lines.map(([name, words]) => `  ${name.padEnd(wide)}  ${words}`),
    ...(zipped === null ? [] : [`All of it is in ${zipped}.`]),
    ...(has(refitPapers.review) && files.length > 0
      ? [`Next: check ${folder}/${refitPapers.review} before you put anything live.`]
      : []),
  ];
}
