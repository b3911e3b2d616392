import { conditionsLine } from '../../core/visitors/conditions.js';
import { UsageError } from '../../core/base/errors.js';
import { chooseRequests, lengthOf } from '../../core/load/request-view.js';
import type { RequestChoice } from '../../core/load/request-view.js';
import { medianRun } from '../../core/load/session.js';
import { compareDocument } from '../../output/json/compare.js';
import { compareCsv, compareMarkdown } from '../../output/compare-table.js';
import { plainText } from '../../output/plain-text.js';
import { waterfallPairSvg } from '../../output/svg/waterfall-pair.js';
import { drawComparison } from '../../output/terminal/compare.js';
import { drawWaterfall } from '../../output/terminal/waterfall.js';
import { paletteFor } from '../../output/terminal/style.js';
import type { Screen } from '../../output/terminal/style.js';
import type { Workspace as OpenWorkspace } from '../../store/workspace.js';
import type { ComparedPage } from '../../tasks/compare.js';
import { compareTwoSurveys } from '../compare-two-surveys.js';
import { onlyOneForm } from '../one-form.js';
import { numbered } from '../numbered.js';
import { choiceOf, writePictures } from '../request-options.js';
import { writeResult } from '../write-result.js';
import type { Handler } from '../command.js';
import type { schema } from '../commands/compare.js';

export const handler: Handler<typeof schema> = async (settings, { policy }, io) => {
  const { screen, print, say } = io;
  const { workspace: folder, before, after, anyway, json, csv, markdown } = settings;
  onlyOneForm({ json, csv, markdown });
  const { Workspace } = await import('../../store/workspace.js');
  const { compare } = await import('../../tasks/compare.js');
  let opened: OpenWorkspace | undefined;
  const workspace = () => (opened ??= Workspace.openExisting(folder));
  const choice = choiceOf(settings);
  try {
    const known = () => Workspace.exists(folder) && areSurveys(workspace(), before, after);
    if (settings.surveys || known())
      return await compareTwoSurveys(workspace(), settings, policy, io);
    const pages = await compare(workspace, before, after, anyway);
    await writePictures(
      pages.map((page) => () => pictureOf(page, choice)),
      settings,
    );
    if (settings.looks !== undefined) await writeLooks(pages, settings.looks);
    if (csv) say(compareCsv(pages));
    else if (markdown) say(compareMarkdown(pages));
    else
      print(
        () =>
          pages
            .map((page) =>
              [
                drawComparison(page, screen),
                ...(settings.waterfalls ? drawBoth(page, choice, screen) : []),
              ].join('\n\n'),
            )
            .join('\n\n'),
        () => compareDocument(pages),
      );
    return 0;
  } finally {
    opened?.close();
  }
};

/** Whether both labels are those of surveys, and of no session. */
function areSurveys({ surveys, sessions }: OpenWorkspace, ...labels: readonly string[]): boolean {
  const [surveyed, clocked] = [surveys.labels(), sessions.labels()];
  return labels.every((label) => surveyed.includes(label) && !clocked.includes(label));
}

/** @throws UsageError when there is no page of which there are pictures. */
async function writeLooks(pages: readonly ComparedPage[], file: string): Promise<void> {
  const seen = pages.flatMap(({ looks }) => looks ?? []);
  if (seen.length === 0)
    throw new UsageError('there are no pictures of both sides to compare', {
      hint: 'clock keeps one of each cold session: clock both again',
    });
  const { looksPicture } = await import('../../images/looks-picture.js');
  for (const [index, looks] of seen.entries()) {
    const picture = await looksPicture(looks.pictures.before, looks.pictures.after, looks);
    await writeResult(seen.length === 1 ? file : numbered(file, index + 1), picture, '--looks');
  }
}

/** The median loads of both sides with the requests that were chosen. */
function loadsOf({ before, after }: ComparedPage, choice: RequestChoice) {
  return [before, after].map((session) => {
    const run = medianRun(session);
    return { session, run, chosen: chooseRequests(run.requests, choice) };
  });
}

/** Both waterfalls on an axis that is as long as the longer of them. */
function drawBoth(page: ComparedPage, choice: RequestChoice, screen: Screen): string[] {
  const loads = loadsOf(page, choice);
  const length = Math.max(
    ...loads.map(({ run, chosen }) => lengthOf(chosen.rows, run.markers.load)),
  );
  return loads.map(({ session, run, chosen }) =>
    [
      paletteFor(screen).bold(plainText(session.label)),
      drawWaterfall(run, chosen, screen, length),
    ].join('\n'),
  );
}

function pictureOf(page: ComparedPage, choice: RequestChoice): string {
  const [before, after] = loadsOf(page, choice).map(({ session, run, chosen }) => ({
    label: `${session.label}: ${session.page}`,
    markers: run.markers,
    chosen,
  }));
  return waterfallPairSvg({
    title: `${page.before.label} and ${page.after.label}`,
    subtitle: conditionsLine(page.before.conditions),
    before: before!,
    after: after!,
    changes: page.requests,
  });
}
