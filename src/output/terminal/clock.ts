import { max, min } from 'simple-statistics';
import { describeConditions } from '../../core/visitors/conditions.js';
import { markerNames, markerTitles } from '../../core/load/markers.js';
import { usableAt } from '../../core/load/usable.js';
import type { ClockedPage, ClockView } from '../views/clock.js';
import type { LoadFinding } from '../../core/findings/load/load-case.js';
import { groupBy } from '../../core/base/group-by.js';
import { bytesByHost } from '../../core/load/host-bytes.js';
import { chooseRequests } from '../../core/load/request-view.js';
import type { RequestChoice } from '../../core/load/request-view.js';
import { requestTypes } from '../../core/load/request.js';
import type { Run, SessionSummary } from '../../core/load/session.js';
import type { Summary } from '../../core/base/summary.js';
import { findingWords } from '../words/findings.js';
import { formatMarker } from '../words/change.js';
import { plainText, shorten } from '../words/plain-text.js';
import { requestName } from '../words/request.js';
import { count, formatBytes, formatTime } from '../words/units.js';
import { drawFilm } from './film.js';
import { beside, joined, paletteFor, table } from './style.js';
import type { Screen } from './style.js';
import { drawWaterfall } from './waterfall.js';

/** All sessions of a call, one below the other. */
export function drawClock({ sessions, choice }: ClockView, screen: Screen): string {
  return sessions.map((session) => drawSession(session, choice, screen)).join('\n\n');
}

/** A session as a page of text: conditions, markers, weight, and the median run's waterfall. */
export function drawSession(page: ClockedPage, choice: RequestChoice, screen: Screen): string {
  const { bold, dim, yellow } = paletteFor(screen);
  const { session, summary, medianRun, harFile } = page;
  const conditions = Object.entries(describeConditions(session.conditions));
  const failures = session.runs.flatMap(({ failure }) => failure ?? []);
  return [
    `${bold(plainText(session.label))}: ${plainText(session.page)}${redirectWords(page)}, ${count(summary.countedRuns, session.conditions ? `${session.conditions.cache} load` : 'load')}`,
    dim(
      joined(
        [...conditions.map(([name, words]) => `${name} ${words}`), ...hostLoadWords(session.runs)],
        screen,
      ),
    ),
    ...(failures.length > 0
      ? [
          yellow(
            `${count(failures.length, 'load')} failed and ${failures.length === 1 ? 'does' : 'do'} not count: ${plainText(failures[0]!)}`,
          ),
        ]
      : []),
    ...cutOffWords(session.runs).map(yellow),
    '',
    beside(
      markerTable(summary, screen),
      [weightTable(summary, screen), '', hostTable(medianRun, screen)].join('\n'),
      screen,
    ),
    '',
    drawWaterfall(medianRun, chooseRequests(medianRun.requests, choice), screen),
    '',
    ...(page.film ? [...drawFilm(page.film, screen), ''] : []),
    ...drawFindings(page, screen),
    `${session.runs.length === 1 ? 'HAR' : 'HAR of the median run'}: ${plainText(harFile)}`,
  ].join('\n');
}

/** Where a page leads, if it is to another address. */
function redirectWords({ session, medianRun }: ClockedPage): string {
  const { finalUrl } = medianRun;
  const isSame = bareAddress(finalUrl) === bareAddress(session.page);
  return isSame ? '' : ` (which redirects to ${plainText(finalUrl)})`;
}

function bareAddress(address: string): string {
  return URL.canParse(address) ? new URL(address).href.replace(/#.*$/, '') : address;
}

/** Loads whose time was up before they had finished. */
function cutOffWords(runs: readonly Run[]): string[] {
  const limits = runs.flatMap(({ cutOff }) => cutOff ?? []);
  if (limits.length === 0) return [];
  const loads = `${count(limits.length, 'load')} of ${runs.length}`;
  return [
    `${loads} had not finished after ${max(limits) / 1000} s: what had arrived by then is shown; --timeout waits longer`,
  ];
}

/** Findings of one kind beyond this many would push out those of other kinds; the JSON has them all. */
const shownOfAKind = 3;

/** The findings, the most costly first, and separately those after the page is usable. */
function drawFindings({ findings, medianRun }: ClockedPage, screen: Screen): string[] {
  const { bold, dim } = paletteFor(screen);
  const early = findings.filter(({ late }) => !late);
  const lines = [...groupBy(early, ({ id }) => id).values()].flatMap((alike) => [
    ...alike.slice(0, shownOfAKind).map((finding) => `  ${findingLine(finding, medianRun)}`),
    ...(alike.length > shownOfAKind
      ? [dim(`  ${alike.length - shownOfAKind} more of this kind are in --json`)]
      : []),
  ]);
  const tail = findings.find(({ id }) => id === 'tail');
  const usable = usableAt(medianRun);
  const after =
    tail && usable !== null
      ? [dim(`After the page is usable (${formatTime(usable)}): ${plainText(findingWords(tail))}`)]
      : [];
  if (lines.length + after.length === 0) return [];
  return [...(lines.length > 0 ? [bold('What stands out'), ...lines] : []), ...after, ''];
}

function findingLine(finding: LoadFinding, run: Run): string {
  const words = plainText(findingWords(finding));
  return finding.url === null ? words : `${shorten(nameOf(finding.url, run), 44)}: ${words}`;
}

function nameOf(url: string, { requests }: Run): string {
  const request = requests.find((one) => one.url === url);
  return request ? requestName(request) : url;
}

/** The load of this machine: not a condition, but a reason to doubt runs that scatter. */
function hostLoadWords(runs: readonly Run[]): string[] {
  const loads = runs.flatMap(({ hostLoad }) => hostLoad ?? []);
  if (loads.length === 0) return [];
  const [least, most] = [min(loads).toFixed(1), max(loads).toFixed(1)];
  return [`load of this machine ${least === most ? least : `${least} to ${most}`}`];
}

function markerTable({ markers }: SessionSummary, screen: Screen): string {
  const rows = markerNames.flatMap((name) => {
    const summary = markers[name];
    return summary
      ? [[markerTitles[name], ...spread(summary, (value) => formatMarker(name, value))]]
      : [];
  });
  return table(screen, [{ title: 'marker' }, ...spreadColumns], rows);
}

function weightTable(summary: SessionSummary, screen: Screen): string {
  const rows = requestTypes
    .filter((type) => summary.requestsByType[type].max > 0)
    .map((type) => [
      type,
      countSpread(summary.requestsByType[type]),
      ...spread(summary.bytesByType[type], formatBytes),
    ]);
  const all = ['all', countSpread(summary.requestCount), ...spread(summary.bytes, formatBytes)];
  return table(
    screen,
    [{ title: 'type' }, { title: 'requests', align: 'right' }, ...spreadColumns],
    [...rows, all],
  );
}

/** Hosts that are shown; the JSON has them all. */
const shownHosts = 5;

/** The bytes of each host in the median run. */
function hostTable({ requests }: Run, screen: Screen): string {
  const hosts = bytesByHost(requests);
  const left = hosts.length - shownHosts;
  const rows = hosts
    .slice(0, shownHosts)
    .map(({ host, thirdParty, requests: asked, bytes }) => [
      shorten(host, 28),
      thirdParty ? 'third' : 'first',
      String(asked),
      formatBytes(bytes),
    ]);
  return [
    table(
      screen,
      [
        { title: 'host' },
        { title: 'party' },
        { title: 'requests', align: 'right' },
        { title: 'bytes', align: 'right' },
      ],
      rows,
    ),
    ...(left > 0 ? [paletteFor(screen).dim(`${count(left, 'more host')} in --json`)] : []),
  ].join('\n');
}

const spreadColumns = ['median', 'min', 'max'].map((title) => ({
  title,
  align: 'right' as const,
}));

function spread(summary: Summary, format: (value: number) => string): string[] {
  return [summary.median, summary.min, summary.max].map(format);
}

/** A number of requests, with its range where the loads differ. */
function countSpread({ median, min, max }: Summary): string {
  return min === max ? String(median) : `${median} (${min}–${max})`;
}
