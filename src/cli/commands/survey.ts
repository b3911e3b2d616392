import { defineCommand } from '../command.js';
import { surveyOptions, surveySchema } from '../survey-options.js';

export const surveyCommand = defineCommand({
  call: 'survey [start..]',
  describe: 'Crawl a site and measure every image on it',
  positionals: { start: 'Addresses to begin at, or folders of static sites' },
  options: surveyOptions,
  schema: surveySchema,
  examples: [
    ['survey http://brindlebay.test/', 'up to 50 pages of the site, in every view'],
    ['survey ./public --label before', 'a folder of a static site, served on loopback'],
    ['survey --list pages.csv --audience screens.csv', 'what analytics says matters'],
    ['survey --sitemap http://brindlebay.test/sitemap.xml --pages 500', 'what a sitemap names'],
    ['survey http://brindlebay.test/ --include "/journal/*" --depth 3', 'one part of the site'],
    ["survey http://staging.test/ --basic 'staging.test=$LOGIN'", 'with LOGIN=user:password set'],
    ['survey --resume', 'go on where Ctrl-C or a power cut ended the last one'],
  ],
  load: () => import('../handlers/survey.js'),
});
