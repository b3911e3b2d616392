import { once } from 'node:events';
import { findingRows } from '../../core/rank/finding-rows.js';
import { findingCounts } from '../../core/rank/finding-counts.js';
import { rowsOf } from '../../core/rank/rank-view.js';
import { defaultPolicy } from '../../core/policy/policy.js';
import { clockDocument } from '../../output/json/clock.js';
import { compareDocument } from '../../output/json/compare.js';
import { jsonText } from '../../output/json/json-text.js';
import { findingsDocument } from '../../output/json/rank-findings.js';
import { rankDocument } from '../../output/json/rank.js';
import { writtenReportDocument } from '../../output/json/written-report.js';
import { surveyDocument } from '../../output/json/survey.js';
import { trialDocument } from '../../output/json/trial.js';
import { drawClock } from '../../output/terminal/clock.js';
import { drawCompare } from '../../output/terminal/compare.js';
import { drawDemoSummary } from '../../output/terminal/demo.js';
import { drawFindings } from '../../output/terminal/findings.js';
import { drawRanking } from '../../output/terminal/rank.js';
import { drawRefit } from '../../output/terminal/refit.js';
import { drawWrittenReport } from '../../output/terminal/report.js';
import { paletteFor } from '../../output/terminal/style.js';
import { drawSurvey } from '../../output/terminal/survey.js';
import { drawTrial } from '../../output/terminal/trial.js';
import type { DemoView } from '../../output/views/demo.js';
import type { Workspace } from '../../store/workspace.js';
import type { ComparedPage } from '../../tasks/clock/compare.js';
import type { RankResult } from '../../tasks/rank.js';
import type { SurveyResult } from '../../tasks/survey/survey.js';
import type { TriedPage } from '../../tasks/trial/trial.js';
import type { RefitResult } from '../../tasks/refit/write-refit.js';
import { cacheFolder } from '../cache-folder.js';
import type { Handler } from '../command.js';
import type { demoCommand } from '../commands/demo.js';
import type { Forms } from '../forms/form.js';
import type { Io } from '../io.js';
import { program } from '../program.js';

type Settings = Parameters<typeof handler>[0];

export const handler: Handler<typeof demoCommand> = async (settings, _file, io) => {
  if (settings.serve) return serveOnly(settings, io);
  const { Workspace } = await import('../../store/workspace.js');
  const workspace = Workspace.open(settings.workspace);
  try {
    if (settings.weeks) {
      const { fourWeeks } = await import('./demo-weeks.js');
      return await fourWeeks(workspace, settings, io);
    }
    return await wholeStory(workspace, settings, io);
  } finally {
    workspace.close();
  }
};

/** Where the demo's site is served. */
interface SiteView {
  readonly start: string;
  readonly hosts: Readonly<Record<string, string>>;
  readonly archive: {
    readonly start: string;
    readonly hosts: Readonly<Record<string, string>>;
  };
}

const siteForms: Forms<SiteView> = {
  text: { describe: 'For people', print: () => Promise.resolve(siteText) },
  json: {
    describe: 'As JSON',
    print: () =>
      Promise.resolve((site) => jsonText({ format: 'zealous-lynx.demo-site/1', ...site })),
  },
};

function siteText({ start, hosts, archive }: SiteView): string {
  const [address] = Object.values(hosts);
  const old = Object.entries(archive.hosts).find(([host]) => host.startsWith('h1.'));
  const others = archive.hosts[new URL(archive.start).hostname];
  return [
    `The festival's site is served at ${address}, under made-up host names.`,
    '',
    'To survey it:',
    `  zealous-lynx survey ${start} --map-host '*.test=${address}'`,
    'To survey its archive, whose pages have every fault that is not of images:',
    `  zealous-lynx survey ${archive.start} --map-host ${old?.join('=')} \\`,
    `    --map-host '*.test=${others}' --any-certificate`,
    'To look at it:',
    `  chromium --host-resolver-rules="MAP *.test ${address}" ${start}`,
    '',
    'Ctrl-C ends it.',
  ].join('\n');
}

async function serveOnly(settings: Settings, { task, show }: Io): Promise<number> {
  const { serveArchive } = await import('../../tasks/demo.js');
  const { serveDemoSite } = await import('../../tasks/demo-site.js');
  const site = await serveDemoSite(cacheFolder(), settings.port, task);
  const archive = await serveArchive();
  const told = { start: archive.start, hosts: archive.hosts };
  await show(siteForms, { start: site.start, hosts: site.hosts, archive: told }, settings);
  if (!task.signal.aborted) await once(task.signal, 'abort');
  await Promise.all([site.close(), archive.close()]);
  return 0;
}

/** The summary, with the documents of all steps. */
interface StoryView extends DemoView {
  readonly steps: readonly unknown[];
}

const storyForms: Forms<StoryView> = {
  text: { describe: 'For people', print: () => Promise.resolve(drawDemoSummary) },
  json: {
    describe: 'As JSON',
    print: () => Promise.resolve(({ steps }) => jsonText({ format: 'zealous-lynx.demo/1', steps })),
  },
};

async function wholeStory(workspace: Workspace, settings: Settings, io: Io): Promise<number> {
  const { out, report } = settings;
  const { screen, task, say, show } = io;
  const { bold, cyan } = paletteFor(screen);
  const title = (words: string) => say(`\n${cyan('▌')} ${bold(words)}\n`);
  let surveyed: SurveyResult | undefined;
  let ranked: RankResult | undefined;
  let refitted: RefitResult | undefined;
  let tried: readonly TriedPage[] = [];
  let compared: readonly ComparedPage[] = [];
  const steps: unknown[] = [];
  const { demo } = await import('../../tasks/demo.js');
  const whole = await demo(
    workspace,
    { ...task, cache: cacheFolder(), out, report, creator: program },
    {
      surveyed: (result) => {
        surveyed = result;
        const view = { ...result, top: 8 };
        steps.push(surveyDocument(view));
        title('survey: what is there');
        say(drawSurvey(view, screen));
      },
      ranked: (result) => {
        ranked = result;
        const by = 'family';
        const query = { by, sort: 'waste', top: 10, filter: {}, policy: defaultPolicy } as const;
        const found = rowsOf(result, query);
        const view = {
          ...found,
          result,
          by,
          unweighted: false,
          narrowed: '',
          imageLimit: 10,
          found: findingCounts(found.images, result.ledger.facts.pictures),
        } as const;
        steps.push(rankDocument(view));
        title('rank: what it wastes');
        say(drawRanking(view, screen));
      },
      found: (result, site) => {
        const rows = findingRows([], site);
        const view = {
          rows,
          result,
          narrowed: 'those not about images',
          isNamed: result !== ranked,
          muted: [],
          top: 5,
        };
        steps.push(findingsDocument(view));
        title(`rank --by finding: what else is wrong with ${result.survey.label}`);
        say(drawFindings(view, screen));
      },
      refitted: (result) => {
        refitted = result;
        steps.push(result.manifest);
        title('refit: the files as they should be');
        say(drawRefit({ ...result.manifest, ...result, zipped: null, top: 8 }, screen));
      },
      tried: (pages) => {
        tried = pages;
        const view = { pages, choice: { sort: 'start', top: 24 }, waterfalls: false } as const;
        steps.push(trialDocument(view));
        title('trial: what the refit will bring');
        say(drawTrial(view, screen));
      },
      clocked: (session) => {
        const view = { sessions: [session], choice: { sort: 'start', top: 24 } } as const;
        steps.push(clockDocument(view));
        title(`clock: the front page ${session.session.label}`);
        say(drawClock(view, screen));
      },
      compared: (pages) => {
        compared = pages;
        const view = { pages, choice: { sort: 'start', top: 24 }, waterfalls: false } as const;
        steps.push(compareDocument(view));
        title('compare: before and after');
        say(drawCompare(view, screen));
      },
      reported: (written) => {
        steps.push(writtenReportDocument(written));
        title('report: one file for everybody else');
        say(drawWrittenReport(written, screen));
      },
    },
  );
  const [[pair], [trial]] = [compared, tried];
  if (!whole || !surveyed || !ranked || !refitted || !trial || !pair) return 130;
  title('in a few lines');
  const view = {
    steps,
    pages: surveyed.pages.length,
    images: ranked.images.length,
    perVisit: ranked.ledger.perVisit,
    files: refitted.manifest.files.length,
    tried: trial.comparison,
    comparison: pair.comparison,
    folders: { workspace: workspace.shown, out, report },
  };
  await show(storyForms, view, settings);
  return 0;
}
