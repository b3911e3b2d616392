import { once } from 'node:events';
import { clockDocument } from '../../output/json/clock.js';
import { compareDocument } from '../../output/json/compare.js';
import { defaultPolicy } from '../../core/policy/policy.js';
import { rowsOf } from '../../core/rank/rank-view.js';
import { rankDocument } from '../../output/json/rank.js';
import { surveyDocument } from '../../output/json/survey.js';
import { drawSession } from '../../output/terminal/clock.js';
import { drawComparison } from '../../output/terminal/compare.js';
import { drawDemoSummary } from '../../output/terminal/demo.js';
import { drawRanking } from '../../output/terminal/rank.js';
import { drawRefit } from '../../output/terminal/refit.js';
import { paletteFor } from '../../output/terminal/style.js';
import { drawSurvey } from '../../output/terminal/survey.js';
import type { Workspace } from '../../store/workspace.js';
import type { ComparedPage } from '../../tasks/compare.js';
import type { RankResult } from '../../tasks/rank.js';
import type { RefitResult } from '../../tasks/write-refit.js';
import type { SurveyResult } from '../../tasks/survey.js';
import { cacheFolder } from '../cache-folder.js';
import type { Io } from '../io.js';
import { program } from '../program.js';
import type { Handler } from '../command.js';
import type { schema } from '../commands/demo.js';

export const handler: Handler<typeof schema> = async (
  { workspace: folder, serve, port, out },
  _,
  io,
) => {
  if (serve) return serveOnly(port, io);
  const { Workspace } = await import('../../store/workspace.js');
  const workspace = Workspace.open(folder);
  try {
    return await wholeStory(workspace, out, io);
  } finally {
    workspace.close();
  }
};

async function serveOnly(port: number, { task, print }: Io): Promise<number> {
  const { serveDemoSite } = await import('../../tasks/demo.js');
  const site = await serveDemoSite(cacheFolder(), port, task);
  const [address] = Object.values(site.hosts);
  print(
    () =>
      [
        `The festival's site is served at ${address}, under made-up host names.`,
        '',
        'To survey it:',
        `  zealous-lynx survey ${site.start} --map-host '*.test=${address}'`,
        'To look at it:',
        `  chromium --host-resolver-rules="MAP *.test ${address}" ${site.start}`,
        '',
        'Ctrl-C ends it.',
      ].join('\n'),
    () => ({ format: 'zealous-lynx.demo-site/1', start: site.start, hosts: site.hosts }),
  );
  // A timer keeps the process alive where the server alone would, too; the signal ends both.
  if (!task.signal.aborted) await once(task.signal, 'abort');
  await site.close();
  return 0;
}

async function wholeStory(workspace: Workspace, out: string, io: Io): Promise<number> {
  const { screen, task, say, print } = io;
  const { bold, cyan } = paletteFor(screen);
  const title = (words: string) => say(`\n${cyan('▌')} ${bold(words)}\n`);
  let surveyed: SurveyResult | undefined;
  let ranked: RankResult | undefined;
  let refitted: RefitResult | undefined;
  let compared: readonly ComparedPage[] = [];
  const documents: unknown[] = [];
  const { demo } = await import('../../tasks/demo.js');
  const whole = await demo(
    workspace,
    { ...task, cache: cacheFolder(), out, creator: program },
    {
      surveyed: (result) => {
        surveyed = result;
        documents.push(surveyDocument(result));
        title('survey: what is there');
        say(drawSurvey(result, 8, screen));
      },
      ranked: (result) => {
        ranked = result;
        const by = 'family';
        const view = { by, sort: 'waste', top: 10, filter: {}, policy: defaultPolicy } as const;
        const found = rowsOf(result, view);
        const drawing = { ...found, sheet: result, by, unweighted: false, narrowed: '' } as const;
        documents.push(rankDocument({ ...drawing, top: 10 }));
        title('rank: what it wastes');
        say(drawRanking(drawing, screen));
      },
      refitted: (result) => {
        refitted = result;
        documents.push(result.manifest);
        title('refit: the files as they should be');
        const { sheets } = result;
        say(drawRefit({ ...result, ...result.manifest, sheets, zipped: null }, 8, screen));
      },
      clocked: (sheet) => {
        documents.push(clockDocument(sheet));
        title(`clock: the front page ${sheet.session.label}`);
        say(drawSession(sheet, { sort: 'start', top: 24 }, screen));
      },
      compared: (pages) => {
        compared = pages;
        documents.push(compareDocument(pages));
        title('compare: before and after');
        say(pages.map((page) => drawComparison(page, screen)).join('\n\n'));
      },
    },
  );
  const [pair] = compared;
  if (!whole || !surveyed || !ranked || !refitted || !pair) return 130;
  title('in five lines');
  const sheet = {
    pages: surveyed.pages.length,
    images: ranked.images.length,
    perVisit: ranked.perVisit,
    files: refitted.manifest.files.length,
    comparison: pair.comparison,
    folders: { workspace: workspace.folder, out },
  };
  print(
    () => drawDemoSummary(sheet, screen),
    () => ({ format: 'zealous-lynx.demo/1', steps: documents }),
  );
  return 0;
}
