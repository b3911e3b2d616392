import { conditionsLine } from '../../core/visitors/conditions.js';
import { PageError, SettingError, UsageError } from '../../core/base/errors.js';
import { describeNetwork } from '../../core/visitors/network.js';
import { loadFindingsOf } from '../../core/findings/load/index.js';
import type { Policy } from '../../core/policy/policy.js';
import { chooseRequests } from '../../core/load/request-view.js';
import { medianRun, summariseSession } from '../../core/load/session.js';
import { clockDocument, clockSetDocument } from '../../output/json/clock.js';
import { requestsCsv } from '../../output/request-table.js';
import { filmStripSvg } from '../../output/svg/film-strip.js';
import { waterfallSvg } from '../../output/svg/waterfall.js';
import { drawSession } from '../../output/terminal/clock.js';
import { filmEnd, filmWords } from '../../output/film-words.js';
import { count } from '../../output/units.js';
import type { ClockResult } from '../../tasks/clock.js';
import { hostMapOf } from '../common-options.js';
import type { Io } from '../io.js';
import { onlyOneForm } from '../one-form.js';
import { program } from '../program.js';
import { numbered } from '../numbered.js';
import { writeResult } from '../write-result.js';
import { choiceOf, writePictures } from '../request-options.js';
import type { RequestSettings } from '../request-options.js';
import type { Handler } from '../command.js';
import type { schema } from '../commands/clock.js';

export const handler: Handler<typeof schema> = async (
  settings,
  { views, networks, policy },
  io,
) => {
  const { har, page } = settings;
  if ((har === undefined) === (page.length === 0))
    throw new UsageError(
      har === undefined ? 'say which pages to load' : 'either pages or --har, not both',
      { hint: 'clock <page…> loads pages, clock --har FILE reads a recording' },
    );
  onlyOneForm({ json: settings.json, csv: settings.csv });
  if (har !== undefined && settings.film !== undefined)
    throw new UsageError('a recording has no film: its pages are not loaded', {
      hint: 'leave --film out, or give the pages',
    });
  if (har !== undefined)
    return tell(await readRecording(har, settings.workspace, policy, io), settings, io);
  const { task } = io;
  const network = byName('--network', settings.network, networks, (one) => describeNetwork(one));
  const view = byName('--view', settings.view ?? views[0]!.name, views, ({ name }) => name);
  const { Workspace } = await import('../../store/workspace.js');
  const { clock } = await import('../../tasks/clock.js');
  const workspace = Workspace.open(settings.workspace);
  try {
    const { results, interrupted } = await clock(workspace, page, {
      ...task,
      label: settings.label,
      runs: settings.runs,
      network,
      view,
      cpuFactor: settings.cpu,
      quietWindow: settings.quietWindow,
      noInteractive: !settings.interactive,
      warm: settings.warm,
      film: settings.film !== undefined,
      hosts: hostMapOf(settings.mapHost),
      policy,
      creator: program,
    });
    await tell(results, settings, io);
    return interrupted ? 130 : 0;
  } finally {
    workspace.close();
  }
};

type Sheets = readonly ClockResult[];

/** What a HAR file tells, as if its pages had been loaded here; a survey knows what its images should weigh. */
async function readRecording(
  file: string,
  folder: string,
  policy: Policy,
  { log }: Io,
): Promise<Sheets> {
  const needed = await neededBytes(folder, policy);
  const { readHarFile } = await import('../../tasks/read-har.js');
  const { sessions, defects } = await readHarFile(file);
  for (const { words, entries } of defects)
    log.warn(`${count(entries, 'entry', 'entries')}: ${words}`);
  return sessions.map((session) => ({
    session,
    summary: summariseSession(session),
    medianRun: medianRun(session),
    findings: loadFindingsOf(medianRun(session), session.conditions?.network ?? null, (url) =>
      needed.get(url),
    ),
    film: null,
    harFile: file,
  }));
}

async function neededBytes(folder: string, policy: Policy): Promise<ReadonlyMap<string, number>> {
  const { Workspace } = await import('../../store/workspace.js');
  if (!Workspace.exists(folder)) return new Map();
  const { knownNeeds } = await import('../../tasks/known-needs.js');
  const workspace = Workspace.openExisting(folder);
  try {
    return await knownNeeds(workspace, policy);
  } finally {
    workspace.close();
  }
}

interface Telling extends RequestSettings {
  readonly csv: boolean;
  readonly film?: string | undefined;
}

/** Prints sessions, and draws their waterfalls into the files that were named. */
async function tell(sheets: Sheets, telling: Telling, { screen, print, say }: Io): Promise<number> {
  const choice = choiceOf(telling);
  const pictures = sheets.map(
    ({ session, medianRun: run }) =>
      () =>
        waterfallSvg({
          title: session.page,
          subtitle: conditionsLine(session.conditions),
          markers: run.markers,
          chosen: chooseRequests(run.requests, choice),
        }),
  );
  await writePictures(pictures, telling);
  await writeFilms(sheets, telling.film);
  if (telling.csv)
    say(
      sheets
        .map(({ session, medianRun: { requests } }) =>
          requestsCsv(session.page, chooseRequests(requests, { ...choice, top: Infinity }).rows),
        )
        .map((table, index) => (index === 0 ? table : table.slice(table.indexOf('\n') + 1)))
        .join('\r\n'),
    );
  else
    print(
      () => sheets.map((sheet) => drawSession(sheet, choice, screen)).join('\n\n'),
      () => documentOf(sheets),
    );
  return 0;
}

/** Draws the films of the pages into the file that was named, as SVG where it is called so, else as PNG. */
async function writeFilms(sheets: Sheets, file: string | undefined): Promise<void> {
  if (file === undefined) return;
  const filmed = sheets.flatMap(({ session, film }) => (film ? { session, film } : []));
  if (filmed.length === 0)
    throw new PageError('nothing was filmed: the page could not be loaded once more', {
      hint: 'clock it again',
    });
  for (const [index, { session, film }] of filmed.entries()) {
    const picture = filmStripSvg({
      title: session.page,
      subtitle: filmWords(film),
      conditions: conditionsLine(session.conditions),
      frames: film.frames,
      size: film.size,
      end: filmEnd(film),
    });
    const path = filmed.length === 1 ? file : numbered(file, index + 1);
    const { rasterise } = await import('../../images/rasterise.js');
    await writeResult(path, /\.svg$/i.test(file) ? picture : await rasterise(picture), '--film');
  }
}

function documentOf(results: readonly ClockResult[]) {
  const documents = results.map(clockDocument);
  return documents.length === 1 ? documents[0] : clockSetDocument(documents);
}

function byName<Item extends { readonly name: string }>(
  option: string,
  name: string,
  items: readonly Item[],
  describe: (item: Item) => string,
): Item {
  const found = items.find((item) => item.name === name);
  if (found) return found;
  throw new SettingError(
    `${option}: found ${JSON.stringify(name)}, allowed is one of ${items.map(describe).join(', ')}`,
  );
}
