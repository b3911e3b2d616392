import { availableParallelism, totalmem } from 'node:os';
import { array, object, string } from 'yup';
import type { Options } from 'yargs';
import type { QueryRule } from '../core/address/address-matcher.js';
import { forHost } from './access-settings.js';
import { oneOf, shortText, textList, wholeNumber, yesOrNo } from './checks.js';
import { shared } from './common-options.js';

/** A page takes about half a core and, with its renderer, up to 400 MB. */
export const defaultTabs = Math.max(
  1,
  Math.min(12, availableParallelism() * 2, Math.floor(totalmem() / 400e6 / 2)),
);
/** How many pages are visited when neither a person nor a list says. */
export const defaultPages = 50;
const defaultPerGroup = 200;
const defaultTimeout = 30;
const defaultRetries = 2;

const text = (describe: string): Options => ({ describe, type: 'string', requiresArg: true });
const texts = (describe: string): Options => ({ ...text(describe), array: true });
const yes = (describe: string): Options => ({ describe, type: 'boolean' });

const top = shared.top(30, 'pages');
const label = shared.label('survey');

/** Options under a heading of the help. */
function group(
  heading: string,
  options: Readonly<Record<string, Options>>,
): Readonly<Record<string, Options>> {
  return Object.fromEntries(
    Object.entries(options).map(([name, option]) => [name, { ...option, group: `${heading}:` }]),
  );
}

/** What can be set for a survey, in the order in which its help tells it. */
export const surveyOptions: Readonly<Record<string, Options>> = {
  ...group('Which pages', {
    list: text('File of pages: an address a line, or CSV headed url,visits (visits a month)'),
    sitemap: texts('Address or file of a sitemap, or robots for those that robots.txt names'),
    pages: text(`Visit at most so many pages [${defaultPages}, or all of the list]`),
    depth: text('Follow links at most so far from a start [any number; 0 without a start]'),
    'per-group': text(`Follow links to at most so many addresses of a shape [${defaultPerGroup}]`),
    include: texts('Only addresses like this; * stands for anything'),
    exclude: texts('No addresses like this'),
    within: text('Stay on the host, or on its registrable domain: host, domain [host]'),
    query: text('keep or drop queries, or keep only the named keys: page,id [keep]'),
    'ignore-canonical': yes('Do not believe a page that says that it is another'),
    'ignore-robots': yes('Visit what robots.txt forbids, too'),
    resume: yes('Go on with a survey that was broken off, as it was begun'),
    survey: {
      ...shared.survey.option,
      describe: 'With --resume: label of the survey [the newest]',
    },
  }),
  ...group('How they are looked at', {
    view: texts('Only the view of this name'),
    audience: text('Analytics export (CSV: width, height, density, visits) to make views from'),
    'views-max': text('Make at most so many views of the audience [4]'),
    tabs: text(`Load so many pages at a time [${defaultTabs}]`),
    timeout: text(`Seconds that a page may take to load [${defaultTimeout}]`),
    'map-host': shared.mapHost.option,
  }),
  ...group('How servers are treated', {
    pace: text('Milliseconds between two page loads from one host [0]'),
    retries: text(`Ask again so often for what fails for a moment [${defaultRetries}]`),
    'user-agent': text("Name to give to servers [the browser's, with ZealousLynx behind it]"),
    basic: texts('HOST=USER:PASSWORD, or HOST=$NAME of a variable: Basic credentials'),
    header: texts('HOST=NAME:VALUE, the value perhaps $NAME: a header'),
    cookie: texts('HOST=NAME=VALUE, the value perhaps $NAME: a cookie'),
    'browser-state': text('File of cookies and local storage that a browser saved'),
    'any-certificate': yes('Accept certificates that do not verify'),
  }),
  ...group('What is kept and told', {
    label: label.option,
    bodies: yes('Keep the bodies of images; --no-bodies leaves them out, and the encodes'),
    encode: yes('Encode the images after the crawl; --no-encode leaves that to rank'),
    top: top.option,
  }),
};

export const surveySchema = object({
  start: array().of(string().required('an address or a folder')).default([]),
  list: string().min(1, 'the path of a file'),
  sitemap: textList('an address, a file, or robots').default([]),
  pages: wholeNumber(1, 1_000_000),
  depth: wholeNumber(0, 1_000),
  perGroup: wholeNumber(1, 1_000_000).default(defaultPerGroup),
  include: textList('a pattern like /journal/*').default([]),
  exclude: textList('a pattern like /journal/*').default([]),
  within: oneOf(['host', 'domain'] as const).default('host'),
  query: textList('keep, drop, or keys joined by commas').default(['keep']),
  ignoreCanonical: yesOrNo().default(false),
  ignoreRobots: yesOrNo().default(false),
  userAgent: shortText(),
  pace: wholeNumber(0, 600_000).default(0),
  retries: wholeNumber(0, 10).default(defaultRetries),
  timeout: wholeNumber(1, 600).default(defaultTimeout),
  view: textList('the name of a view').default([]),
  audience: string().min(1, 'the path of a file'),
  viewsMax: wholeNumber(1, 20).default(4),
  tabs: wholeNumber(1, 32).default(defaultTabs),
  basic: forHost('HOST=USER:PASSWORD, or HOST=$NAME', /^(?:\$\w+|[^:]+:[^]*)$/),
  header: forHost('HOST=NAME:VALUE', /^[!#$%&'*+.^`|~\w-]+:[^\r\n\0]*$/),
  cookie: forHost('HOST=NAME=VALUE', /^[!#$%&'*+.^`|~\w-]+=[^\r\n\0;]*$/),
  browserState: string().min(1, 'the path of a file'),
  anyCertificate: yesOrNo().default(false),
  bodies: yesOrNo().default(true),
  encode: yesOrNo().default(true),
  label: label.check,
  resume: yesOrNo().default(false),
  survey: shared.survey.check,
  top: top.check,
  mapHost: shared.mapHost.check,
});

/** `keep`, `drop`, or the keys that stay. */
export function queryRuleOf(words: readonly string[]): QueryRule {
  const [only] = words;
  return words.length === 1 && (only === 'keep' || only === 'drop') ? only : words;
}
