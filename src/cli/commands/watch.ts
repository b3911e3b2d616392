import { array, string } from 'yup';
import { defineCommand } from '../command.js';
import { filePath, shortText, textList, wholeNumber, yesOrNo } from '../options/checks.js';
import { duration } from '../options/duration.js';
import { option, under } from '../options/option.js';
import { surveyOptions } from '../options/survey.js';
import { clockCommand } from './clock.js';

const {
  list: _,
  resume: __,
  survey: ___,
  changedSince: ____,
  handOver: $,
  ...rest
} = surveyOptions;
const { label: _____, top: ______, encode: _______, ...crawl } = rest;
const { runs, network, cpu } = clockCommand.options;

export const watchCommand = defineCommand({
  name: 'watch',
  describe: 'Survey, clock and judge a site again and again, and raise the alarm',
  positionals: {
    start: option(
      'Addresses to start from, or folders of static sites',
      array().of(string().required('an address or a folder')).default([]),
    ),
  },
  options: {
    ...under('When', {
      every: option('Time from one round to the next', duration().default('6h')),
      once: option('Make one round and end, for cron and CI', yesOrNo().default(false)),
      fullEvery: option(
        'Visit all pages in every Nth round, and in between only what may have changed',
        wholeNumber(1, 10_000).default(1),
      ),
    }),
    ...under('What is kept and told', {
      label: option(
        'What the labels of its surveys and sessions begin with',
        shortText().default('watch'),
      ),
      keep: option(
        'Surveys that stay whole; older ones are reduced to their figures',
        wholeNumber(1, 100_000),
        'all',
      ),
      field: option('File of what visitors measured, for budgets with from: field', filePath()),
      metrics: option(
        'Serve the figures as OpenMetrics on this port of loopback, at /metrics',
        wholeNumber(0, 65_535),
      ),
      metricsFile: option(
        'Write the figures as OpenMetrics into this file after each round',
        filePath(),
      ),
    }),
    ...under('Loads', {
      clock: option(
        'Clock these pages in each round',
        textList('the address of a page').default([]),
      ),
      ...{ runs, network, cpu },
    }),
    ...crawl,
  },
  examples: [
    ['watch http://brindlebay.test/ --every 6h', 'one line a round, until Ctrl-C'],
    [
      'watch http://brindlebay.test/ --clock http://brindlebay.test/ --runs 7',
      'with loads of a page in each round',
    ],
    ['watch http://brindlebay.test/ --once', 'for cron: exit status 1 if a budget does not hold'],
    ['watch http://brindlebay.test/ --full-every 7', 'mostly visit only what may have changed'],
    ['watch http://brindlebay.test/ --metrics 9400', 'figures for other systems to collect'],
  ],
});
