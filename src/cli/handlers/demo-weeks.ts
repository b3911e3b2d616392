import { historyDocument } from '../../output/json/history.js';
import { jsonText } from '../../output/json/json-text.js';
import { roundDocument } from '../../output/json/round.js';
import { historySvg } from '../../output/svg/history.js';
import { drawHistory } from '../../output/terminal/history.js';
import { drawRound } from '../../output/terminal/round.js';
import { paletteFor } from '../../output/terminal/style.js';
import { count } from '../../output/words/units.js';
import type { Workspace } from '../../store/workspace.js';
import { cacheFolder } from '../cache-folder.js';
import { rasterised } from '../forms/clock.js';
import type { Forms } from '../forms/form.js';
import type { Io } from '../io.js';
import { yamlText } from '../options/yaml.js';
import { program } from '../program.js';
import { writeResult } from '../write-result.js';

interface StoryView {
  readonly picture: string;
  readonly steps: readonly unknown[];
}

const forms: Forms<StoryView> = {
  text: {
    describe: 'For people',
    print: () =>
      Promise.resolve(
        ({ picture }) =>
          `The numbers over time as a picture: ${picture}\nNext: zealous-lynx history, zealous-lynx history week-2 week-3 --measure waste`,
      ),
  },
  json: {
    describe: 'As JSON',
    print: () =>
      Promise.resolve(({ steps }) => jsonText({ format: 'zealous-lynx.demo-weeks/1', steps })),
  },
};

/** The most messages that are repeated. */
const titlesShown = 3;
/** The most suggested budgets that are shown. */
const budgetsShown = 4;

/** Tells the story of four weeks. */
export async function fourWeeks(
  workspace: Workspace,
  settings: { readonly out: string; readonly picture: string },
  { screen, task, say, show }: Io,
): Promise<number> {
  const { bold, cyan, dim } = paletteFor(screen);
  const { demoWeeks } = await import('../../tasks/demo-weeks.js');
  const steps: unknown[] = [];
  let svg = '';
  const whole = await demoWeeks(
    workspace,
    { ...task, cache: cacheFolder(), out: settings.out, creator: program },
    {
      week: (number, words) => say(`\n${cyan('▌')} ${bold(`week ${number}: ${words}`)}\n`),
      round: (round) => {
        steps.push(roundDocument(round));
        say(drawRound(round, screen));
      },
      budgets: (budgets) => {
        const more = budgets.length - budgetsShown;
        say(`\n${bold('gate --suggest')}: budgets that hold today, for the config file\n`);
        say(yamlText({ budgets: budgets.slice(0, budgetsShown) }));
        if (more > 0) say(dim(`and ${more} more`));
      },
      received: (titles) => {
        say(
          `\nThe server that stands in for the team's chat received ${count(titles.length, 'message')}:`,
        );
        for (const title of titles.slice(0, titlesShown)) say(`  ${title}`);
        const more = titles.length - titlesShown;
        if (more > 0) say(dim(`  and ${more} more`));
      },
      history: (found) => {
        const view = { ...found, top: 5 };
        steps.push(historyDocument(view));
        svg = historySvg(view);
        say(`\n${cyan('▌')} ${bold('history: the site over time')}\n`);
        say(drawHistory(view, screen));
      },
    },
  );
  if (!whole) return 130;
  const [picture] = await rasterised([svg]);
  await writeResult(settings.picture, picture!, '--picture');
  await show(forms, { picture: settings.picture, steps }, settings);
  return 0;
}
