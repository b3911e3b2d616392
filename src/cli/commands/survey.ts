import { availableParallelism } from 'node:os';
import { array, object, string } from 'yup';
import { UsageError } from '../../core/errors.js';
import { surveyDocument } from '../../output/json/survey.js';
import { drawSurvey } from '../../output/terminal/survey.js';
import type { QueryRule } from '../../core/address-pattern.js';
import { shortText, textList, wholeNumber, yesOrNo } from '../checks.js';
import { defineCommand } from '../command.js';
import { hostMapOf, shared } from '../common-options.js';

const defaultTabs = Math.max(1, Math.min(4, availableParallelism()));
const top = shared.top(30, 'pages');
const label = shared.label('survey');

export const surveyCommand = defineCommand({
  call: 'survey [start..]',
  describe: 'Crawl a site and measure every image on it',
  positionals: { start: 'Addresses to begin at, or folders of static sites' },
  options: {
    pages: { describe: 'Visit at most so many pages [50]', type: 'string', requiresArg: true },
    depth: {
      describe: 'Follow links at most so far from a start [any number]',
      type: 'string',
      requiresArg: true,
    },
    include: {
      describe: 'Only addresses like this; * stands for anything; may be given several times',
      type: 'string',
      array: true,
      requiresArg: true,
    },
    exclude: {
      describe: 'No addresses like this; may be given several times',
      type: 'string',
      array: true,
      requiresArg: true,
    },
    query: {
      describe: 'keep or drop queries of addresses, or keep only the named keys: page,id [keep]',
      type: 'string',
      requiresArg: true,
    },
    'ignore-robots': { describe: 'Visit what robots.txt forbids, too', type: 'boolean' },
    'user-agent': {
      describe: "Name to give to servers [the browser's, with ZealousLynx behind it]",
      type: 'string',
      requiresArg: true,
    },
    tabs: {
      describe: `Load so many pages at a time [${defaultTabs}]`,
      type: 'string',
      requiresArg: true,
    },
    label: label.option,
    resume: {
      describe: 'Go on with a survey that was broken off, as it was begun',
      type: 'boolean',
    },
    survey: {
      ...shared.survey.option,
      describe: 'With --resume: label of the survey [the newest]',
    },
    top: top.option,
    'map-host': shared.mapHost.option,
  },
  schema: object({
    start: array().of(string().required('an address or a folder')).default([]),
    pages: wholeNumber(1, 100_000).default(50),
    depth: wholeNumber(0, 1_000),
    include: textList('a pattern like /journal/*').default([]),
    exclude: textList('a pattern like /journal/*').default([]),
    query: textList('keep, drop, or keys joined by commas').default(['keep']),
    ignoreRobots: yesOrNo().default(false),
    userAgent: shortText(),
    tabs: wholeNumber(1, 32).default(defaultTabs),
    label: label.check,
    resume: yesOrNo().default(false),
    survey: shared.survey.check,
    top: top.check,
    mapHost: shared.mapHost.check,
  }),
  examples: [
    ['survey http://brindlebay.test/', 'up to 50 pages of the site, in every view'],
    ['survey ./public --label before', 'a folder of a static site, served on loopback'],
    ['survey http://brindlebay.test/ --include "/journal/*" --depth 3', 'one part of the site'],
    ['survey --resume', 'go on where Ctrl-C or a power cut ended the last one'],
    ['survey http://brindlebay.test/ --json', 'for other programs'],
  ],
  run: async (settings, { views, policy }, { screen, task, print }) => {
    const { start, resume } = settings;
    if (resume === start.length > 0)
      throw new UsageError(
        resume ? 'a survey is resumed from where it began' : 'say where to begin',
        { hint: resume ? 'leave the starts out' : 'give an address or a folder, or --resume' },
      );
    const { Workspace } = await import('../../store/workspace.js');
    const { resumeSurvey, survey } = await import('../../tasks/survey.js');
    const workspace = Workspace.open(settings.workspace);
    const common = {
      ...task,
      policy,
      tabs: settings.tabs,
      hosts: hostMapOf(settings.mapHost),
      ignoreRobots: settings.ignoreRobots,
      userAgent: settings.userAgent,
    };
    const scope = {
      pages: settings.pages,
      depth: settings.depth,
      include: settings.include,
      exclude: settings.exclude,
      query: queryRuleOf(settings.query),
    };
    try {
      const result = resume
        ? await resumeSurvey(workspace, { ...common, survey: settings.survey })
        : await survey(workspace, start, { ...common, views, scope, label: settings.label });
      print(
        () => drawSurvey(result, settings.top, screen),
        () => surveyDocument(result.survey, result.pages, result.skipped),
      );
      if (result.interrupted) return 130;
      return result.pages.some(({ error, status }) => error === null || status !== null) ? 0 : 3;
    } finally {
      workspace.close();
    }
  },
});

/** `keep`, `drop`, or the keys that stay. */
function queryRuleOf(words: readonly string[]): QueryRule {
  const [only] = words;
  return words.length === 1 && (only === 'keep' || only === 'drop') ? only : words;
}
