import { availableParallelism, totalmem } from 'node:os';
import type { QueryRule } from '../../core/address/address-matcher.js';
import { visitorOptions } from './access-options.js';
import { filePath, oneOf, shortText, textList, wholeNumber, yesOrNo } from './checks.js';
import { option, under } from './option.js';
import { shared } from './shared.js';

/** A page takes about half a core and, with its renderer, up to 400 MB. */
const defaultTabs = Math.max(
  1,
  Math.min(12, availableParallelism() * 2, Math.floor(totalmem() / 400e6 / 2)),
);
/** The default limit on pages, without a list. */
export const defaultPages = 50;

/** The settings of a survey, in the order of its help. */
export const surveyOptions = {
  ...under('Which pages', {
    list: option(
      'File of pages: one address a line, or CSV with the columns url,visits (visits a month)',
      filePath(),
    ),
    sitemap: option(
      'Address or file of a sitemap; robots for the sitemaps that robots.txt names',
      textList('an address, a file, or robots').default([]),
    ),
    pages: option(
      'Visit at most this many pages',
      wholeNumber(1, 1_000_000),
      `${defaultPages}, or the whole list`,
    ),
    depth: option(
      'Follow links at most this many steps from a start',
      wholeNumber(0, 1_000),
      'no limit; 0 without a start',
    ),
    perGroup: option(
      'Follow at most this many links whose addresses have the same pattern',
      wholeNumber(1, 1_000_000).default(200),
    ),
    include: option(
      'Visit only addresses that match this pattern; * stands for anything',
      textList('a pattern like /journal/*').default([]),
    ),
    exclude: option(
      'Visit no addresses that match this pattern',
      textList('a pattern like /journal/*').default([]),
    ),
    within: option(
      'Stay on the host, or on the registrable domain',
      oneOf(['host', 'domain'] as const).default('host'),
    ),
    query: option(
      'keep or drop queries, or keep only the keys named here: page,id',
      textList('keep, drop, or keys joined by commas').default(['keep']),
    ),
    ignoreCanonical: option(
      'Survey pages that name another address as their canonical one, or show the same document',
      yesOrNo().default(false),
    ),
    ignoreRobots: option('Visit pages that robots.txt forbids', yesOrNo().default(false)),
    changedSince: option(
      'Visit again only what may have changed since this survey, and take the rest over from it',
      shortText(),
    ),
    handOver: option(
      'Begin the survey and leave the work to the workers of a workspace on a PostgreSQL server',
      yesOrNo().default(false),
    ),
    resume: option('Continue a survey that was interrupted', yesOrNo().default(false)),
    survey: option('With --resume: label of the survey', shortText(), 'the newest'),
  }),
  ...under('How they are looked at', {
    view: option('Use only the view of this name', textList('the name of a view').default([])),
    audience: option(
      'Analytics export (CSV: width, height, density, visits) to derive views from',
      filePath(),
    ),
    viewsMax: option(
      'Derive at most this many views from the audience',
      wholeNumber(1, 20).default(4),
    ),
    tabs: option('Load this many pages at a time', wholeNumber(1, 32).default(defaultTabs)),
    timeout: option('Seconds that a page may take to load', wholeNumber(1, 600).default(30)),
    memory: shared.memory,
    mapHost: shared.mapHost,
    allowHost: shared.allowHost,
    refit: option(
      'Folder of a refit that is live: its files are judged by what they were made from',
      textList('the folder of a refit').default([]),
    ),
  }),
  ...under('How servers are treated', {
    pace: option(
      'Milliseconds between two page loads from one host',
      wholeNumber(0, 600_000).default(0),
    ),
    retries: option('Retry temporary failures this many times', wholeNumber(0, 10).default(2)),
    ...visitorOptions("the browser's, followed by ZealousLynx"),
  }),
  ...under('What is kept and shown', {
    label: shared.label('survey'),
    bodies: option(
      'Keep the bodies of images; --no-bodies leaves them out, and with them the encodes',
      yesOrNo().default(true),
    ),
    pictures: option('Keep a picture of each first screen, for report', yesOrNo().default(true)),
    encode: option(
      'Encode the images after the crawl; --no-encode leaves that to rank',
      yesOrNo().default(true),
    ),
    top: shared.top(30, 'pages'),
  }),
};

/** `keep`, `drop`, or the keys that stay. */
export function queryRuleOf(words: readonly string[]): QueryRule {
  const [only] = words;
  return words.length === 1 && (only === 'keep' || only === 'drop') ? only : words;
}
