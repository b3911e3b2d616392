import { array, object, string } from 'yup';
import { groupings } from '../../core/rank/groupings.js';
import { sortKeys } from '../../core/rank/rank-view.js';
import { oneOf, textList, wholeNumber, yesOrNo } from '../checks.js';
import { defineCommand } from '../command.js';
import { shared } from '../common-options.js';
import { filterWords } from '../rank-filters.js';

/** So many rows leave room for the rest on one screen. */
export const usualRows = 12;
const text = { type: 'string', requiresArg: true } as const;

export const schema = object({
  survey: shared.survey.check,
  by: oneOf(groupings),
  top: wholeNumber(1, 1_000_000),
  sort: oneOf(sortKeys).default('waste'),
  where: array().of(string().defined()).default([]),
  page: textList('a pattern like /journal/*').default([]),
  group: textList('the name of a page group').default([]),
  unweighted: yesOrNo().default(false),
  findings: yesOrNo().default(false),
  csv: yesOrNo().default(false),
  markdown: yesOrNo().default(false),
});

export const rankCommand = defineCommand({
  call: 'rank',
  describe: 'Rank what a survey found by the bytes that an average visit wastes',
  options: {
    survey: shared.survey.option,
    by: { describe: `Sum up by ${groupings.join(', ')} [family]`, ...text },
    top: { describe: `Show so many rows [${usualRows}, files 20]`, ...text },
    sort: { describe: `Sort by ${sortKeys.join(', ')} [waste]`, ...text },
    where: { describe: `Look only at: ${filterWords}`, ...text, array: true },
    page: { describe: 'Look only at pages with this address or pattern', ...text, array: true },
    group: { describe: 'Look only at page groups of this name or pattern', ...text, array: true },
    unweighted: {
      describe: 'Let every visit count the same, whatever the audience',
      type: 'boolean',
    },
    findings: {
      describe: 'Count what else is wrong with the images [of up to 20,000 placements]',
      type: 'boolean',
    },
    csv: { describe: 'Print the rows as CSV', type: 'boolean' },
    markdown: { describe: 'Print the rows as a Markdown table', type: 'boolean' },
  },
  schema,
  examples: [
    ['rank', 'the slots that waste the most, on all pages of one template together'],
    ['rank --by image --top 5', 'the five files that waste the most'],
    ['rank --by page --sort sent', 'the heaviest pages first'],
    ['rank --by image --where cause=format --where bytes=100k', 'large files in the wrong format'],
    ["rank --page '/journal/*' --where view=phone", 'what the journal costs on a phone'],
    ['rank --by image --top 1000 --csv > waste.csv', 'all of it, for a spreadsheet'],
    ['rank --json | jq .perVisit.wasteBytes', 'one number'],
  ],
  load: () => import('../handlers/rank.js'),
});
