import { array, string } from 'yup';
import { groupings } from '../../core/rank/groupings.js';
import { sortKeys } from '../../core/rank/sort-keys.js';
import { defineCommand } from '../command.js';
import { formOptions } from '../forms/form.js';
import { rankForms } from '../forms/rank.js';
import { oneOf, textList, wholeNumber, yesOrNo } from '../options/checks.js';
import { option } from '../options/option.js';
import { filterWords } from '../options/rank-filters.js';
import { shared } from '../options/shared.js';

/** This many rows leave room for the rest on one screen. */
export const usualRows = 12;

export const rankCommand = defineCommand({
  name: 'rank',
  describe: 'Rank what a survey found by the bytes that an average visit wastes',
  positionals: {},
  options: {
    survey: shared.survey,
    by: option('What a row stands for', oneOf([...groupings, 'finding'] as const), 'family'),
    top: option(
      'Show at most this many rows',
      wholeNumber(1, 1_000_000),
      `${usualRows}; all in --csv and --markdown; 20 images in --json`,
    ),
    sort: option('Sort by this, largest first', oneOf(sortKeys).default('waste')),
    where: option(`Rank only: ${filterWords}`, array().of(string().defined()).default([])),
    page: option(
      'Rank only pages with this address or pattern',
      textList('a pattern like /journal/*').default([]),
    ),
    group: option(
      'Rank only page groups with this name or pattern',
      textList('the name of a page group').default([]),
    ),
    view: option('Rank only views with this name', textList('the name of a view').default([])),
    unweighted: option(
      'Count every visit the same, whatever the audience',
      yesOrNo().default(false),
    ),
    findings: option(
      'Count the findings, too',
      yesOrNo().default(false),
      'on up to 20,000 placements',
    ),
    ...formOptions(rankForms),
  },
  examples: [
    ['rank', 'the slots that waste the most, over all pages of a template'],
    ['rank --by image --top 5', 'the five files that waste the most'],
    ['rank --by page --sort sent', 'the heaviest pages first'],
    ['rank --by image --where cause=format --where bytes=100k', 'large files in the wrong format'],
    ["rank --page '/journal/*' --view phone", 'what the journal costs on a phone'],
    ['rank --by finding', 'what else slows pages, files that are no images included'],
    ['rank --by image --where finding=wrong-sizes', 'what has a finding'],
    ['rank --by image --csv > waste.csv', 'everything, for a spreadsheet'],
    ['rank --json | jq .perVisit.wasteBytes', 'one number'],
  ],
});
