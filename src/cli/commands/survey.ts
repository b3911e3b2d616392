import { availableParallelism } from 'node:os';
import { array, object, string } from 'yup';
import { surveyDocument } from '../../output/json/survey.js';
import { drawSurvey } from '../../output/terminal/survey.js';
import { wholeNumber } from '../checks.js';
import { defineCommand } from '../command.js';
import { hostMapOf, shared } from '../common-options.js';

const defaultTabs = Math.max(1, Math.min(4, availableParallelism()));
const top = shared.top(30, 'pages');
const label = shared.label('survey');

export const surveyCommand = defineCommand({
  call: 'survey <start..>',
  describe: 'Crawl a site and measure every image on it',
  positionals: { start: 'Addresses to begin at, or folders of static sites' },
  options: {
    pages: { describe: 'Visit at most so many pages [50]', type: 'string', requiresArg: true },
    tabs: {
      describe: `Load so many pages at a time [${defaultTabs}]`,
      type: 'string',
      requiresArg: true,
    },
    label: label.option,
    top: top.option,
    'map-host': shared.mapHost.option,
  },
  schema: object({
    start: array().of(string().required('an address or a folder')).required(),
    pages: wholeNumber(1, 100_000).default(50),
    tabs: wholeNumber(1, 32).default(defaultTabs),
    label: label.check,
    top: top.check,
    mapHost: shared.mapHost.check,
  }),
  examples: [
    ['survey http://brindlebay.test/', 'up to 50 pages of the site, in every view'],
    ['survey ./public --label before', 'a folder of a static site, served on loopback'],
    ['survey http://brindlebay.test/ --pages 500 --json', 'for other programs'],
  ],
  run: async (settings, { views, policy }, { screen, task, print }) => {
    const { Workspace } = await import('../../store/workspace.js');
    const { survey } = await import('../../tasks/survey.js');
    const workspace = Workspace.open(settings.workspace);
    try {
      const result = await survey(workspace, settings.start, {
        ...task,
        views,
        policy,
        label: settings.label,
        pages: settings.pages,
        tabs: settings.tabs,
        hosts: hostMapOf(settings.mapHost),
      });
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
