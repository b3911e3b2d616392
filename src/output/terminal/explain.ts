import type { Fix } from '../../core/refit/work/fix.js';
import type { ImageView } from '../views/explain.js';
import type { RankResult } from '../../core/rank/rank-view.js';
import type { RankedImage, RankedPlacement } from '../../core/rank/ranked-image.js';
import { sumOf } from '../../core/waste/portion.js';
import { formatSize } from '../../core/base/size.js';
import { mostName, withoutOrigin, plainText, shorten } from '../words/plain-text.js';
import { sparedWords } from '../words/spared-time.js';
import { findingWords } from '../words/findings.js';
import { originOf, pixelWords } from '../words/rank.js';
import { count, formatBytes, formatShare } from '../words/units.js';
import { causeBars } from './cause-bars.js';
import { sendingLines } from './sendings.js';
import { drawSlotCurve } from './slot-chart.js';
import { joined, paletteFor, table, wrapped } from './style.js';
import type { Screen } from './style.js';

/** Everything about one image file. */
export function drawImage(view: ImageView, screen: Screen): string {
  const { image, picture, result, fix, others, top } = view;
  const sections = [
    imageHeading(image, result, screen),
    ...(picture.images.length > 1 ? [pictureLines(view, screen)] : []),
    ...(image.waste ? [wasteLines(view, screen)] : []),
    placementLines(image, result, top, screen),
    ...(fix.curve ? [curveLines(fix, result, screen)] : []),
    ...(image.encoded && image.encoded.attempts.length > 0 ? [attemptLines(image, screen)] : []),
    ...(image.rules.length > 0 ? [ruleLines(image, screen)] : []),
    ...(image.findings.length > 0 ? [findingLines(image, screen)] : []),
    fixLines(fix, image, screen),
    ...(others.length > 0 ? [otherLines(others, screen)] : []),
  ];
  return sections.map((lines) => lines.join('\n')).join('\n\n');
}

function imageHeading(image: RankedImage, { survey, ledger }: RankResult, screen: Screen) {
  const { bold, dim } = paletteFor(screen);
  const { file } = image;
  const pixels = file.intrinsic ? formatSize(file.intrinsic) : pixelWords(image);
  const frames = file.frames > 1 ? `, ${file.frames} frames` : '';
  const wasted = image.perVisit.wasteBytes;
  const [first, ...more] = image.urls.map((url) => shorten(url, screen.width - 4));
  return [
    bold(first ?? ''),
    ...more.map((url) => `also ${url}`),
    `${file.mediaType}, ${pixels}${frames}, ${formatBytes(file.bytes)}${image.thirdParty ? ', from a third party' : ''} ${dim(`content ${file.contentHash.slice(0, 12)}`)}`,
    wrapped(
      `on ${count(image.pages, 'page')} of ${plainText(survey.label)}; an average visit wastes ${bold(formatBytes(wasted))} on it (${formatShare(wasted, ledger.perVisit.wasteBytes)} of all waste)`,
      screen,
    ),
  ];
}

/** The files that its picture comes in, when there are several. */
function pictureLines({ picture, image, result }: ImageView, screen: Screen): string[] {
  const { bold, dim } = paletteFor(screen);
  const { images } = picture;
  const wasted = sumOf(images.map(({ perVisit }) => perVisit)).wasteBytes;
  const rows = images.map((one) => [
    shorten(withoutOrigin(one.url, originOf(result.survey)), Math.max(20, screen.width - 62)),
    one.file.mediaType.replace('image/', ''),
    one.file.intrinsic ? formatSize(one.file.intrinsic) : '–',
    formatBytes(one.file.bytes),
    String(one.pages),
    formatBytes(one.perVisit.wasteBytes),
    one === image ? dim('← this file') : '',
  ]);
  return [
    `One picture in ${images.length} files; an average visit wastes ${bold(formatBytes(wasted))} on all of them`,
    table(
      screen,
      [
        { title: 'file' },
        { title: 'format', spare: true },
        { title: 'intrinsic', align: 'right' },
        { title: 'bytes', align: 'right' },
        { title: 'pages', align: 'right' },
        { title: 'waste/visit', align: 'right' },
        { title: '' },
      ],
      rows,
    ),
  ];
}

function wasteLines({ image, result, spared }: ImageView, screen: Screen): string[] {
  const { causes, wasteBytes } = image.perVisit;
  return [
    ...sendingLines(image, result, screen),
    ...(wasteBytes > 0
      ? ['Why, in an average visit', ...causeBars(causes, wasteBytes, screen)]
      : []),
    ...(spared
      ? [
          wrapped(
            sparedWords(
              spared,
              spared.pages === 1
                ? 'An average visit to the one timed page that is sent it'
                : `An average visit to the ${spared.pages} timed pages that are sent it`,
            ),
            screen,
          ),
        ]
      : []),
  ];
}

function placementLines(image: RankedImage, { survey }: RankResult, top: number, screen: Screen) {
  const { dim } = paletteFor(screen);
  const { placements } = image;
  if (placements.length === 0) return ['No element on any page shows it.'];
  const origin = originOf(survey);
  const densities = new Map(survey.views.map(({ name, density }) => [name, density]));
  const rows = placements
    .slice(0, top)
    .map((placement) => [
      shorten(withoutOrigin(placement.page, origin), mostName),
      plainText(placement.view, 12),
      shorten(placement.selector, mostName),
      formatSize(placement.slot),
      formatSize(placement.rendered),
      `×${densities.get(placement.view) ?? 1}`,
      placement.need ? formatSize(placement.need) : '–',
      whereWords(placement),
      placement.loading,
    ]);
  const left = placements.length - rows.length;
  return [
    table(
      screen,
      [
        { title: 'page', least: 20 },
        { title: 'view', spare: true },
        { title: 'element', least: 20 },
        { title: 'slot', align: 'right', spare: true },
        { title: 'rendered', align: 'right' },
        { title: 'density', spare: true },
        { title: 'need', align: 'right' },
        { title: 'seen', spare: true },
        { title: 'loading', spare: true },
      ],
      rows,
    ),
    ...(left > 0
      ? [dim(`${count(left, 'more placement')}; --top ${placements.length} shows all.`)]
      : []),
  ];
}

function whereWords({ shown, aboveFold, fetched }: RankedPlacement): string {
  if (!shown) return fetched ? 'never, but fetched' : 'never';
  return aboveFold ? 'first screen' : 'below';
}

function curveLines({ curve, sizes }: Fix, { survey }: RankResult, screen: Screen): string[] {
  const { dim } = paletteFor(screen);
  return [
    'Width of its slot by width of the window',
    drawSlotCurve(curve!, survey.views, screen.width),
    dim(`sizes="${sizes}"`),
  ];
}

/** How a format without a quality setting kept the pixels. */
function keptWords({ similarity }: { readonly similarity: number }): string {
  return similarity === 1 ? 'every pixel' : 'rounded';
}

function attemptLines({ encoded }: RankedImage, screen: Screen): string[] {
  const { green } = paletteFor(screen);
  const { attempts, need, nature, steps, format } = encoded!;
  let chosen = false;
  const rows = attempts.map((attempt) => {
    const wins = !chosen && attempt.format === format && attempt.bytes === steps.best;
    chosen ||= wins;
    return [
      attempt.format,
      attempt.quality === null ? keptWords(attempt) : String(attempt.quality),
      formatBytes(attempt.bytes),
      attempt.similarity === 1 ? '1' : attempt.similarity.toFixed(4),
      wins ? green('← needed') : attempt.isDraft ? 'draft' : '',
    ];
  });
  return [
    `Encoded at ${need ? formatSize(need) : '–'} as a ${natureWords[nature]}`,
    table(
      screen,
      [
        { title: 'format' },
        { title: 'quality', align: 'right' },
        { title: 'bytes', align: 'right' },
        { title: 'similarity', align: 'right' },
        { title: '' },
      ],
      rows,
    ),
  ];
}

const natureWords = {
  photograph: 'photograph',
  transparent: 'photograph with transparency',
  drawing: 'drawing',
  animation: 'animation',
  vector: 'vector',
} as const;

function ruleLines({ rules }: RankedImage, screen: Screen): string[] {
  const { bold } = paletteFor(screen);
  return [
    bold('Allowed by the policy'),
    ...rules.map(({ reason, zoom, minimum, exempt }) => {
      const allowed = [
        ...(zoom ? [`${zoom} times its need`] : []),
        ...(minimum ? [`at least ${minimum} pixels wide`] : []),
        ...(exempt ? ['not slowed down'] : []),
      ];
      return `  ${wrapped(`${allowed.join(', ')}: ${plainText(reason)}`, screen, 2)}`;
    }),
  ];
}

function findingLines({ findings }: RankedImage, screen: Screen): string[] {
  const { bold, yellow } = paletteFor(screen);
  return [
    bold('Found'),
    ...findings.map(
      (finding) => `  ${yellow('!')} ${wrapped(plainText(findingWords(finding)), screen, 4)}`,
    ),
  ];
}

function fixLines({ steps }: Fix, { waste }: RankedImage, screen: Screen): string[] {
  const { bold } = paletteFor(screen);
  if (steps.length === 0)
    return [waste ? 'Its size is right: there is nothing to do.' : 'It cannot be judged.'];
  return [
    bold('To do'),
    ...steps.map((step, index) => {
      const number = `  ${index + 1}. `;
      return number + wrapped(plainText(step, 1_000), screen, number.length);
    }),
    'Next: zealous-lynx refit --out DIR writes the right-sized files.',
  ];
}

/** The most other files that are named. */
const mostOthers = 5;

function otherLines(others: readonly RankedImage[], screen: Screen): string[] {
  const { dim } = paletteFor(screen);
  const [first = '', ...named] = others.slice(0, mostOthers).map(({ url }) => shorten(url, 60));
  const head = `${count(others.length, 'more file')} with that name or selector: ${first}`;
  const left = others.length - mostOthers;
  return [dim(joined([head, ...named, ...(left > 0 ? [`and ${left} more`] : [])], screen))];
}
