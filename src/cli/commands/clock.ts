import { array, object, string } from 'yup';
import { numberFrom, shortText, wholeNumber, yesOrNo } from '../checks.js';
import { defineCommand } from '../command.js';
import { shared } from '../common-options.js';
import { requestOptions } from '../request-options.js';

const requests = requestOptions(40);
const label = shared.label('session');
const text = { type: 'string', requiresArg: true } as const;

export const schema = object({
  page: array().of(string().required('an address')).default([]),
  har: shortText(),
  ...requests.checks,
  csv: yesOrNo().default(false),
  runs: wholeNumber(1, 200).default(5),
  network: shortText().default('mobile'),
  cpu: numberFrom(1, 50).default(1),
  view: shortText(),
  warm: yesOrNo().default(false),
  film: shortText(),
  interactive: yesOrNo().default(true),
  quietWindow: wholeNumber(100, 10_000).default(500),
  label: label.check,
  mapHost: shared.mapHost.check,
});

export const clockCommand = defineCommand({
  call: 'clock [page..]',
  describe: 'Load pages again and again with cold caches, and time them',
  positionals: { page: 'Addresses, or folders of static sites' },
  options: {
    runs: { describe: 'Cold loads that count [5]', type: 'string', requiresArg: true },
    network: {
      describe: 'Line by name: slow-mobile, mobile, fast-mobile, dsl, cable, fibre, none [mobile]',
      type: 'string',
      requiresArg: true,
    },
    cpu: {
      describe: 'Make the processor so many times slower [1]',
      type: 'string',
      requiresArg: true,
    },
    interactive: {
      describe:
        'Wait for the 5 s of rest that the marker asks for; --no-interactive does without [yes]',
      type: 'boolean',
    },
    'quiet-window': {
      describe: 'Milliseconds without traffic after which the network is quiet [500]',
      ...text,
    },
    warm: {
      describe: 'Load each page a second time, with what its cold load left in the cache',
      type: 'boolean',
    },
    view: { describe: 'View by name [the first]', type: 'string', requiresArg: true },
    label: label.option,
    ...requests.options,
    film: {
      describe: 'Film one load more, and draw it into this file as PNG (or SVG)',
      ...text,
    },
    csv: { describe: 'Print the requests as CSV', type: 'boolean' },
    har: {
      describe: 'Read a HAR file instead of loading pages',
      type: 'string',
      requiresArg: true,
    },
    'map-host': shared.mapHost.option,
  },
  schema,
  examples: [
    ['clock http://brindlebay.test/', 'five cold loads over a mobile line'],
    ['clock http://brindlebay.test/ --network dsl --runs 9 --label before', 'for a comparison'],
    ['clock http://brindlebay.test/ --view laptop --cpu 4 --json', 'on a slow laptop'],
    ['clock http://brindlebay.test/ --only image --sort bytes', 'the heaviest images first'],
    ['clock http://brindlebay.test/ --film film.png', 'what visitors see, moment by moment'],
    ['clock http://brindlebay.test/ --warm', 'what a second visit costs'],
    ['clock --har recording.har --png waterfall.png', 'a recording of any origin, drawn'],
  ],
  load: () => import('../handlers/clock.js'),
});
