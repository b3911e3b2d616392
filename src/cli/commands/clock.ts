import { array, object, string } from 'yup';
import { SettingError, UsageError } from '../../core/errors.js';
import { describeNetwork } from '../../core/network.js';
import { medianRun, summariseSession } from '../../core/session.js';
import { clockDocument, clockSetDocument } from '../../output/json/clock.js';
import { drawSession } from '../../output/terminal/clock.js';
import { count } from '../../output/units.js';
import type { ClockResult } from '../../tasks/clock.js';
import { numberFrom, shortText, wholeNumber } from '../checks.js';
import { defineCommand } from '../command.js';
import { hostMapOf, shared } from '../common-options.js';
import type { Io } from '../io.js';
import { program } from '../program.js';

const top = shared.top(40, 'requests');
const label = shared.label('session');

export const clockCommand = defineCommand({
  call: 'clock [page..]',
  describe: 'Load pages again and again with cold caches, and time them',
  positionals: { page: 'Addresses, or folders of static sites' },
  options: {
    runs: { describe: 'Cold loads that count [5]', type: 'string', requiresArg: true },
    network: {
      describe: 'Line by name: slow-mobile, mobile, fast-mobile, dsl, cable, fibre, none [mobile]',
      type: 'string',
      requiresArg: true,
    },
    cpu: {
      describe: 'Make the processor so many times slower [1]',
      type: 'string',
      requiresArg: true,
    },
    view: { describe: 'View by name [the first]', type: 'string', requiresArg: true },
    label: label.option,
    top: top.option,
    har: {
      describe: 'Read a HAR file instead of loading pages',
      type: 'string',
      requiresArg: true,
    },
    'map-host': shared.mapHost.option,
  },
  schema: object({
    page: array().of(string().required('an address')).default([]),
    har: shortText(),
    runs: wholeNumber(1, 200).default(5),
    network: shortText().default('mobile'),
    cpu: numberFrom(1, 50).default(1),
    view: shortText(),
    label: label.check,
    top: top.check,
    mapHost: shared.mapHost.check,
  }),
  examples: [
    ['clock http://brindlebay.test/', 'five cold loads over a mobile line'],
    ['clock http://brindlebay.test/ --network dsl --runs 9 --label before', 'for a comparison'],
    ['clock http://brindlebay.test/ --view laptop --cpu 4 --json', 'on a slow laptop'],
    ['clock --har recording.har', 'the same reading of a recording of any origin'],
  ],
  run: async (settings, { views, networks, policy: _ }, io) => {
    const { har, page } = settings;
    if ((har === undefined) === (page.length === 0))
      throw new UsageError(
        har === undefined ? 'say which pages to load' : 'either pages or --har, not both',
        { hint: 'clock <page…> loads pages, clock --har FILE reads a recording' },
      );
    if (har !== undefined) return readRecording(har, settings.top, io);
    const { screen, task, print } = io;
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
        hosts: hostMapOf(settings.mapHost),
        creator: program,
      });
      print(
        () => results.map((result) => drawSession(result, settings.top, screen)).join('\n\n'),
        () => documentOf(results),
      );
      return interrupted ? 130 : 0;
    } finally {
      workspace.close();
    }
  },
});

/** Draws what a HAR file tells as if its pages had been loaded here. */
async function readRecording(
  file: string,
  top: number,
  { screen, print, log }: Io,
): Promise<number> {
  const { readHarFile } = await import('../../tasks/read-har.js');
  const { sessions, defects } = await readHarFile(file);
  const results = sessions.map((session) => ({
    session,
    summary: summariseSession(session),
    medianRun: medianRun(session),
    harFile: file,
  }));
  for (const { words, entries } of defects)
    log.warn(`${count(entries, 'entry', 'entries')}: ${words}`);
  print(
    () => results.map((result) => drawSession(result, top, screen)).join('\n\n'),
    () => documentOf(results),
  );
  return 0;
}

function documentOf(results: readonly ClockResult[]) {
  const documents = results.map(({ session, summary, medianRun, harFile }) =>
    clockDocument(session, summary, medianRun, harFile),
  );
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
