import { findingKind } from '../../core/findings/index.js';
import type { RankResult, RankRow } from '../../core/rank/rank-view.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import { formatSize } from '../../core/base/size.js';
import type { FamilyView, FindingView } from '../views/explain.js';
import { findingTitle, findingWords } from '../words/findings.js';
import { mostName, plainText, shorten, withoutOrigin } from '../words/plain-text.js';
import { originOf, pixelWords } from '../words/rank.js';
import { count, formatBytes } from '../words/units.js';
import { drawSlotCurve } from './slot-chart.js';
import { siteFindingLines } from './site-finding.js';
import { paletteFor, table, wrapped } from './style.js';
import type { Screen } from './style.js';

/** The slot families of one slot: where they are, what they should offer, and the images in them. */
export function drawFamilies({ rows, result, top }: FamilyView, screen: Screen): string {
  const [first, ...others] = rows as readonly [RankRow, ...RankRow[]];
  const { bold, dim } = paletteFor(screen);
  const { family, perVisit, files, pages, images } = first;
  const origin = originOf(result.survey);
  const lines = [
    bold(shorten(family?.slot ?? '', screen.width)),
    wrapped(
      `on ${pagesIn(family?.where ?? '', pages, result, origin)} (${family?.kind ?? 'no element'}); ${count(files, 'image file')}; an average visit wastes ${bold(formatBytes(perVisit.wasteBytes))} there`,
      screen,
    ),
    '',
  ];
  if (family?.curve)
    lines.push(
      'Width of the slot by width of the window, the widest of all pages',
      drawSlotCurve(family.curve, result.survey.views, screen.width),
      '',
    );
  if (family && family.plan.widths.length > 0)
    lines.push(
      bold('To do'),
      `  ${wrapped(`Offer its images in widths of ${family.plan.widths.join(', ')} px (srcset)${family.sizes ? ` with sizes="${family.sizes}"` : ''}`, screen, 2)}`,
      '',
    );
  lines.push(imageTable(images.slice(0, top), origin, screen));
  const left = images.length - top;
  if (left > 0) lines.push(dim(`${count(left, 'more image')}; --top ${images.length} shows all.`));
  for (const row of others.slice(0, maxOthers))
    lines.push(
      dim(
        `also on ${pagesIn(row.family?.where ?? '', row.pages, result, origin)}: ${formatBytes(row.perVisit.wasteBytes)} per visit`,
      ),
    );
  if (others.length > maxOthers)
    lines.push(dim(`and in ${count(others.length - maxOthers, 'more page group')}`));
  return lines.join('\n');
}

/** `4 pages of /journal/*`, `2 of the pages headed Makers`, or the one page that is meant. */
function pagesIn(where: string, pages: number, { pages: all }: RankResult, origin: string): string {
  const name = plainText(withoutOrigin(where, origin));
  const inGroup = all.filter(({ group, url }) => (group ?? url) === where).length;
  if (inGroup <= 1) return name;
  return /^pages /.test(name) ? `${pages} of the ${name}` : `${count(pages, 'page')} of ${name}`;
}

/** Other families that are named. */
const maxOthers = 5;

/** A kind of finding: who fixes it and how, and what has it. */
export function drawFinding(view: FindingView, screen: Screen): string {
  const { bold, dim } = paletteFor(screen);
  const { id, site, result } = view;
  const kind = findingKind(id);
  return [
    `${bold(id)}: ${findingTitle(id)}`,
    ...(kind
      ? [
          wrapped(`${kind.docs.meaning} ${kind.docs.why}`, screen),
          wrapped(`${kind.doer ? `For ${kind.doer}: ` : ''}${kind.fix}`, screen),
          dim(wrapped(`Ignore it: ${lowerFirst(kind.docs.ignore)}`, screen)),
        ]
      : []),
    '',
    ...(site.length > 0
      ? fileLines(view, screen)
      : havingLines(view, screen, plainText(result.survey.label))),
  ].join('\n');
}

function havingLines({ id, images, result, top }: FindingView, screen: Screen, label: string) {
  const { dim } = paletteFor(screen);
  const origin = originOf(result.survey);
  const left = images.length - top;
  return [
    images.length === 0
      ? `Nothing in ${label} has it.`
      : `${count(images.length, 'image file')} of ${label} ${images.length === 1 ? 'has' : 'have'} it, most waste first:`,
    ...images
      .slice(0, top)
      .flatMap((image) => [
        `  ${shorten(withoutOrigin(image.url, origin), screen.width - 2)}`,
        ...image.findings
          .filter((finding) => finding.id === id)
          .map((finding) => dim(`    ${wrapped(plainText(findingWords(finding)), screen, 4)}`)),
      ]),
    ...(left > 0 ? [dim(`${count(left, 'more image')}; --top ${images.length} shows all.`)] : []),
  ];
}

function fileLines({ site, result, top }: FindingView, screen: Screen): string[] {
  const { dim } = paletteFor(screen);
  const origin = originOf(result.survey);
  const left = site.length - top;
  return [
    site.length === 1
      ? 'Found once:'
      : `Found ${site.length} times, the most costly first (the same on the pages of a group counts once):`,
    ...site.slice(0, top).flatMap((one) => siteFindingLines(one, origin, screen, false)),
    ...(left > 0
      ? [dim(`${left.toLocaleString('en')} more; --top ${site.length} shows all.`)]
      : []),
  ];
}

function imageTable(images: readonly RankedImage[], origin: string, screen: Screen): string {
  const right = 'right' as const;
  return table(
    screen,
    [
      { title: 'image', least: 26 },
      { title: 'intrinsic', align: right, spare: true },
      { title: 'need', align: right, spare: true },
      { title: 'bytes', align: right },
      { title: 'needed', align: right },
      { title: 'waste/visit everywhere', align: right },
    ],
    images.map((image) => [
      shorten(withoutOrigin(image.url, origin), mostName),
      image.file.intrinsic ? formatSize(image.file.intrinsic) : pixelWords(image),
      image.need ? formatSize(image.need) : '–',
      formatBytes(image.file.bytes),
      image.waste ? formatBytes(image.waste.neededBytes) : '?',
      formatBytes(image.perVisit.wasteBytes),
    ]),
  );
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1);
}
