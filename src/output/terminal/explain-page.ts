import type { PageStory } from '../../core/rank/page-story.js';
import type { PageLoad } from '../../core/rank/page-load.js';
import type { PageView } from '../views/explain.js';
import { totalBytes } from '../../core/load/request.js';
import { mostName, withoutOrigin, plainText, shorten } from '../words/plain-text.js';
import { findingTitle, findingWords } from '../words/findings.js';
import { originOf } from '../words/rank.js';
import { count, formatBytes, formatShare, formatTime } from '../words/units.js';
import { sparedWords } from '../words/spared-time.js';
import { siteFindingLines } from './site-finding.js';
import { bar, paletteFor, table, wrapped } from './style.js';
import type { Screen } from './style.js';

/** The story of one page: its weight, and its images in the order in which they appear. */
export function drawPage(
  { story, load, site, spared, result, top }: PageView,
  screen: Screen,
): string {
  const { bold, dim, yellow } = paletteFor(screen);
  const { page, images, perVisit } = story;
  const whole = totalBytes(page.bytesByType);
  const rows = images
    .slice(0, top)
    .map(({ image, placement, firstScreen, shown, perVisit: part }, index) => [
      String(index + 1),
      shorten(withoutOrigin(image.url, originOf(result.survey)), mostName),
      placement?.kind ?? '–',
      firstScreen.length > 0 ? firstScreen.join(', ') : shown.length > 0 ? 'below' : 'never shown',
      placement?.loading ?? '–',
      formatBytes(image.file.bytes),
      image.waste ? formatBytes(image.waste.neededBytes) : '?',
      formatBytes(part.wasteBytes),
      formatShare(part.wasteBytes, perVisit.wasteBytes),
    ]);
  const types = Object.entries(page.bytesByType).filter(([, bytes]) => bytes > 0);
  const left = images.length - rows.length;
  return [
    bold(shorten(page.url, screen.width)),
    wrapped(
      `${page.status === null ? 'no response' : `status ${page.status}`}, ${page.group ? `group ${plainText(page.group)}, ` : ''}${count(images.length, 'image file')}, ${formatBytes(whole)} in total in the heaviest view`,
      screen,
    ),
    ...(load ? [wrapped(loadWords(load), screen)] : []),
    ...(page.error ? [yellow(wrapped(plainText(page.error), screen))] : []),
    ...story.findings.map(
      (finding) => `${yellow('!')} ${wrapped(plainText(findingWords(finding)), screen, 2)}`,
    ),
    '',
    ...types
      .sort(([, a], [, b]) => b - a)
      .map(
        ([type, bytes]) =>
          `  ${type.padEnd(8)} ${bar(bytes / whole, 30).padEnd(30)} ${formatBytes(bytes).padStart(8)}  ${formatShare(bytes, whole).padStart(6)}`,
      ),
    '',
    wrapped(
      `An average visit to this page is sent ${formatBytes(perVisit.sentBytes)} of images, needs ${formatBytes(perVisit.neededBytes)} and wastes ${bold(formatBytes(perVisit.wasteBytes))}`,
      screen,
    ),
    ...(spared ? [wrapped(sparedWords(spared, 'Without that waste it'), screen)] : []),
    '',
    table(
      screen,
      [
        { title: '', align: 'right' },
        { title: 'image (as it appears)', least: 28 },
        { title: 'kind', spare: true },
        { title: 'first screen', spare: true },
        { title: 'loading', spare: true },
        { title: 'bytes', align: 'right' },
        { title: 'needed', align: 'right' },
        { title: 'waste/visit', align: 'right' },
        { title: 'share', align: 'right' },
      ],
      rows,
    ),
    ...(left > 0 ? [dim(`${count(left, 'more image')}; --top ${images.length} shows all.`)] : []),
    ...foundLines(images, screen),
    ...(site.length === 0
      ? []
      : [
          '',
          bold('How it is put together and sent'),
          ...site
            .slice(0, top)
            .flatMap((one) => siteFindingLines(one, originOf(result.survey), screen, true)),
          ...(site.length > top
            ? [dim(`${count(site.length - top, 'more finding')}; --top ${site.length} shows all.`)]
            : []),
        ]),
  ].join('\n');
}

/** Files that are named for each kind of finding. */
const maxNamed = 4;

/** The findings on the images of a page, one line for each kind. */
function foundLines(images: PageStory['images'], screen: Screen): string[] {
  const { bold, yellow } = paletteFor(screen);
  const names = new Map<string, string[]>();
  for (const { image } of images)
    for (const { id } of image.findings)
      names.set(id, [...(names.get(id) ?? []), shorten(image.url.split('/').at(-1) ?? '', 28)]);
  if (names.size === 0) return [];
  const lines = [...names]
    .sort(([, a], [, b]) => b.length - a.length)
    .map(([id, files]) => {
      const more = files.length > maxNamed ? ` and ${files.length - maxNamed} more` : '';
      const words = `${findingTitle(id)}: ${files.slice(0, maxNamed).join(', ')}${more}`;
      return `  ${yellow('!')} ${wrapped(words, screen, 4)}`;
    });
  return ['', bold('Found in its images'), ...lines];
}

/** How the page is put together: its server, its elements, and which of its scripts hold anything up. */
function loadWords({ wait, elements, scripts }: PageLoad): string {
  const { blocking, deferred, async: whenThere, late } = scripts;
  const idle = [
    ...(deferred > 0 ? [`${deferred} deferred`] : []),
    ...(whenThere > 0 ? [`${whenThere} async`] : []),
    ...(late > 0 ? [`${late} far down`] : []),
  ];
  const words = [
    ...(blocking > 0
      ? [`${count(blocking, 'script')} ${blocking === 1 ? 'blocks' : 'block'} rendering`]
      : []),
    ...(idle.length > 0
      ? [`${idle.join(', ')} ${deferred + whenThere + late === 1 ? 'holds' : 'hold'} up nothing`]
      : []),
  ].join('; ');
  return `first byte after ${formatTime(wait)}, ${count(elements, 'element')}${words ? `; ${words}` : ''}`;
}
