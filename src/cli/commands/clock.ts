import { array, string } from 'yup';
import { defineCommand } from '../command.js';
import { clockForms } from '../forms/clock.js';
import { formOptions } from '../forms/form.js';
import { visitorOptions } from '../options/access-options.js';
import { filePath, numberFrom, shortText, wholeNumber, yesOrNo } from '../options/checks.js';
import { option } from '../options/option.js';
import { requestOptions } from '../options/requests.js';
import { shared } from '../options/shared.js';

export const clockCommand = defineCommand({
  name: 'clock',
  describe: 'Load pages repeatedly with cold caches, and time them',
  positionals: {
    page: option(
      'Addresses, or folders of static sites',
      array().of(string().required('an address')).default([]),
    ),
  },
  options: {
    runs: option('Number of cold loads that count', wholeNumber(1, 200).default(5)),
    network: option(
      'Network by name: slow-mobile, mobile, fast-mobile, dsl, cable, fibre, none, or one of the config file',
      shortText().default('mobile'),
    ),
    cpu: option('Slow the processor down by this factor', numberFrom(1, 50).default(1)),
    interactive: option(
      'Wait for the 5 quiet seconds that time to interactive needs; --no-interactive does without',
      yesOrNo().default(true),
    ),
    quietWindow: option(
      'Milliseconds without traffic after which the network counts as quiet',
      wholeNumber(100, 10_000).default(500),
    ),
    warm: option(
      'Load each page a second time, with the cache that its cold load left',
      yesOrNo().default(false),
    ),
    view: option('View by name', shortText(), 'the first'),
    label: shared.label('session'),
    ...requestOptions(40),
    ...formOptions(clockForms),
    har: option('Read this HAR file instead of loading pages', filePath()),
    timeout: option(
      'Seconds that a page may take to load',
      wholeNumber(1, 3_600),
      '120; three times what is expected, where that is more',
    ),
    ...visitorOptions("the browser's"),
    memory: shared.memory,
    mapHost: shared.mapHost,
    allowHost: shared.allowHost,
  },
  examples: [
    ['clock http://brindlebay.test/', 'five cold loads on a mobile network'],
    ['clock http://brindlebay.test/ --network dsl --runs 9 --label before', 'for a comparison'],
    ['clock http://brindlebay.test/ --view laptop --cpu 4 --json', 'on a slow laptop'],
    ['clock http://brindlebay.test/ --only image --sort bytes', 'the heaviest images first'],
    ['clock http://brindlebay.test/ --film film.png', 'what visitors see while the page loads'],
    ['clock http://brindlebay.test/ --warm', 'what a second visit costs'],
    ['clock --har recording.har --png waterfall.png', 'a recording of any origin, drawn'],
  ],
});
