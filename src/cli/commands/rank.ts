import { object } from 'yup';
import type { RankedImage } from '../../core/ranking.js';
import { rankDocument } from '../../output/json/rank.js';
import { drawRanking } from '../../output/terminal/rank.js';
import { oneOf } from '../checks.js';
import { defineCommand } from '../command.js';
import { shared } from '../common-options.js';

/** What the files can be sorted by, the largest first. */
const orders = {
  waste: ({ wasteBytes }: RankedImage) => wasteBytes ?? -1,
  bytes: ({ bytes }: RankedImage) => bytes,
  needed: ({ neededBytes }: RankedImage) => neededBytes ?? -1,
  pages: ({ pages }: RankedImage) => pages,
} as const;
type Order = keyof typeof orders;
const orderNames = Object.keys(orders) as Order[];

const top = shared.top(20, 'image files');

export const rankCommand = defineCommand({
  call: 'rank',
  describe: 'Rank the image files of a survey by the bytes they waste',
  options: {
    survey: shared.survey.option,
    top: top.option,
    sort: {
      describe: `Sort by ${orderNames.join(', ')} [waste]`,
      type: 'string',
      requiresArg: true,
    },
  },
  schema: object({
    survey: shared.survey.check,
    top: top.check,
    sort: oneOf(orderNames).default('waste'),
  }),
  examples: [
    ['rank', 'the 20 files that waste the most, of the newest survey'],
    ['rank --survey before --sort pages --top 5', 'the five that most pages show'],
    ['rank --json | jq .totals', 'the totals alone'],
  ],
  run: async (
    { workspace: folder, survey, top: rows, sort },
    { policy },
    { screen, task, print },
  ) => {
    const { Workspace } = await import('../../store/workspace.js');
    const { rank } = await import('../../tasks/rank.js');
    const workspace = Workspace.openExisting(folder);
    try {
      const result = await rank(workspace, survey, policy, task);
      const key = orders[sort];
      const sorted = { ...result, images: [...result.images].sort((a, b) => key(b) - key(a)) };
      print(
        () => drawRanking(sorted, rows, screen),
        () => rankDocument(sorted, rows),
      );
      return task.signal.aborted ? 130 : 0;
    } finally {
      workspace.close();
    }
  },
});
