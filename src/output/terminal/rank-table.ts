import { formatSize } from '../../core/base/size.js';
import type { RankRow } from '../../core/rank/rank-view.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import type { RankView } from '../views/rank.js';
import { mostName, shorten, withoutOrigin } from '../words/plain-text.js';
import { nameOf, originOf, pixelWords } from '../words/rank.js';
import { formatBytes, formatShare, formatTime } from '../words/units.js';
import { table } from './style.js';
import type { Column, Screen } from './style.js';

/** The columns of the time that timed pages would be spared. */
const spared: readonly Field[] = (
  [
    ['largest paint', 'largestContentfulPaint'],
    ['load', 'load'],
  ] as const
).map(([title, name]) => ({
  title,
  align: 'right',
  cell: ({ time }) => (time?.[name] == null ? '–' : formatTime(Math.max(0, time[name]))),
}));

/** A column and its values. */
interface Field extends Column {
  readonly cell: (row: RankRow) => string;
}

/** Rows of a ranking as a table, with the columns that its grouping asks for. */
export function rankTable(rows: readonly RankRow[], view: RankView, screen: Screen): string {
  const fields = fieldsOf(view);
  return table(
    screen,
    fields,
    rows.map((row) => fields.map(({ cell }) => cell(row))),
  );
}

function fieldsOf(view: RankView): Field[] {
  const { by, result, total, rows, thirdParty, timed } = view;
  const origin = originOf(result.survey);
  const several = [...rows, ...thirdParty].some(({ files }) => files > 1);
  const right = 'right' as const;
  const counted: Field[] = [
    { title: 'files', align: right, spare: true, cell: ({ files }) => String(files) },
    { title: 'pages', align: right, spare: true, cell: ({ pages }) => String(pages) },
  ];
  const wasted: Field[] = [
    ...(timed ? spared : []),
    {
      title: 'waste/visit',
      align: right,
      cell: ({ perVisit }) => formatBytes(perVisit.wasteBytes),
    },
    {
      title: 'share',
      align: right,
      cell: ({ perVisit }) => formatShare(perVisit.wasteBytes, total.wasteBytes),
    },
  ];
  const named = (title: string, least: number): Field => ({
    ...{ title, least },
    cell: (row) => shorten(nameOf(row, by, origin), mostName),
  });
  const worst = (cell: (image: RankedImage) => string) => (row: RankRow) =>
    row.worst ? cell(row.worst) : '–';
  if (by === 'family')
    return [
      named('slot', 22),
      {
        title: 'where',
        spare: true,
        cell: ({ family }) => shorten(withoutOrigin(family!.where, origin), 18),
      },
      ...counted,
      { title: 'now', align: right, spare: true, cell: worst(fromWords) },
      { title: 'needed', align: right, cell: worst(toWords) },
      ...wasted,
    ];
  if (by === 'image')
    return [
      named('image', 26),
      ...(several ? counted : [counted[1]!]),
      { title: 'intrinsic', align: right, spare: true, cell: worst(intrinsicWords) },
      { title: 'rendered', spare: true, cell: worst(renderedWords) },
      {
        title: 'need',
        align: right,
        spare: true,
        cell: worst(({ need }) => (need ? formatSize(need) : '–')),
      },
      { title: 'bytes', align: right, cell: worst(({ file }) => formatBytes(file.bytes)) },
      {
        title: 'needed',
        align: right,
        cell: worst(({ waste }) => (waste ? formatBytes(waste.neededBytes) : '?')),
      },
      ...wasted,
    ];
  if (by === 'page') {
    const own = (title: string, name: 'sentBytes' | 'neededBytes' | 'wasteBytes'): Field => ({
      ...{ title, align: right },
      cell: ({ ofPage }) => formatBytes(ofPage?.[name] ?? 0),
    });
    return [
      named('page', 26),
      counted[0]!,
      ...(timed ? spared : []),
      own('sent', 'sentBytes'),
      own('needed', 'neededBytes'),
      own('wasted', 'wasteBytes'),
      {
        title: 'share of the site’s waste',
        align: right,
        cell: ({ perVisit }) => formatShare(perVisit.wasteBytes, total.wasteBytes),
      },
    ];
  }
  const sums: Field[] = [
    {
      title: 'sent',
      align: right,
      spare: true,
      cell: ({ perVisit }) => formatBytes(perVisit.sentBytes),
    },
    {
      title: 'needed',
      align: right,
      spare: true,
      cell: ({ perVisit }) => formatBytes(perVisit.neededBytes),
    },
  ];
  return [named(by, 26), ...counted, ...sums, ...wasted];
}

function intrinsicWords(image: RankedImage): string {
  return image.file.intrinsic ? formatSize(image.file.intrinsic) : pixelWords(image);
}

function fromWords(image: RankedImage): string {
  return `${intrinsicWords(image)} ${formatBytes(image.file.bytes).padStart(7)}`;
}

function toWords({ waste, need }: RankedImage): string {
  if (!waste) return '?';
  if (waste.neededBytes === 0) return 'not sent';
  const bytes = formatBytes(waste.neededBytes).padStart(6);
  return need ? `${formatSize(need)} ${bytes}` : bytes;
}

/** The rendered size that decides the need, with the factor that the need has over it. */
function renderedWords({ placements, need }: RankedImage): string {
  const deciding =
    placements.find((placement) => placement.need && placement.need.width === need?.width) ??
    placements.toSorted((left, right) => right.rendered.width - left.rendered.width)[0];
  if (!deciding) return '–';
  const factor = need ? need.width / deciding.rendered.width : 1;
  return factor > 1.05
    ? `${formatSize(deciding.rendered)} ×${Number(factor.toFixed(1))}`
    : formatSize(deciding.rendered);
}
