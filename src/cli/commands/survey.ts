import { array, string } from 'yup';
import { defineCommand } from '../command.js';
import { option } from '../options/option.js';
import { surveyOptions } from '../options/survey.js';

export const surveyCommand = defineCommand({
  name: 'survey',
  describe: 'Crawl a site and measure every image on it',
  positionals: {
    start: option(
      'Addresses to start from, or folders of static sites',
      array().of(string().required('an address or a folder')).default([]),
    ),
  },
  options: surveyOptions,
  examples: [
    ['survey http://brindlebay.test/', 'up to 50 pages of the site, in every view'],
    ['survey ./public --label before', 'a folder of a static site, served on loopback'],
    [
      'survey --list pages.csv --audience screens.csv',
      'the pages and screens that analytics names',
    ],
    ['survey --sitemap http://brindlebay.test/sitemap.xml --pages 500', 'the pages of a sitemap'],
    ['survey http://brindlebay.test/ --include "/journal/*" --depth 3', 'one part of the site'],
    ["survey http://staging.test/ --basic 'staging.test=$LOGIN'", 'with LOGIN=user:password set'],
    ['survey --changed-since autumn', 'only the pages that may have changed since then'],
    [
      'survey http://brindlebay.test/ --hand-over --workspace postgres://lynx@db.test/kites',
      'for workers on other machines',
    ],
    ['survey --resume', 'continue after Ctrl-C or a power cut'],
  ],
});
