import { array, string } from 'yup';
import { defineCommand } from '../command.js';
import { formOptions } from '../forms/form.js';
import { trialForms } from '../forms/trial.js';
import { visitorOptions } from '../options/access-options.js';
import {
  filePath,
  folderPath,
  numberFrom,
  shortText,
  textList,
  wholeNumber,
  yesOrNo,
} from '../options/checks.js';
import { option } from '../options/option.js';
import { requestOptions } from '../options/requests.js';
import { shared } from '../options/shared.js';

export const trialCommand = defineCommand({
  name: 'trial',
  describe: 'Try fixes on a recording of a page, and measure what they bring',
  positionals: {
    page: option(
      'Addresses, or folders of static sites',
      array().of(string().required('an address')).default([]),
    ),
  },
  options: {
    group: option(
      'Try the best-known pages of page groups with this name or pattern',
      textList('the name of a page group').default([]),
    ),
    ofGroup: option('Number of pages of each page group', wholeNumber(1, 100).default(3)),
    survey: option('Label of the survey whose page groups are meant', shortText(), 'the newest'),
    refit: option('Try the files and markup in this folder of a refit', folderPath()),
    fix: option(
      'Try these fixes: dimensions, lazy, early, responsive, sheet, images, without-hosts, defer, flat-imports, styles-first, minify, compress, lifetimes, http2, files; or none',
      textList('a fix').default([]),
      'lazy, early, compress, and those that other options give something to try',
    ),
    without: option('Leave these fixes out', textList('a fix').default([])),
    withoutHost: option(
      'Try the page without what comes from this host and its subdomains',
      textList('a host').default([]),
    ),
    files: option('Try the files in this folder, each at the address of its path', folderPath()),
    each: option('Load the page with each fix alone, too', yesOrNo().default(false)),
    runs: option('Number of loads of each side', wholeNumber(1, 200).default(5)),
    mostRuns: option(
      'Load each side up to this often, where that settles what is not clear yet',
      wholeNumber(1, 200).default(15),
    ),
    network: option(
      'Network by name: slow-mobile, mobile, fast-mobile, dsl, cable, fibre, none, or one of the config file',
      shortText().default('mobile'),
    ),
    cpu: option('Slow the processor down by this factor', numberFrom(1, 50).default(1)),
    view: option('View by name', shortText(), 'the first'),
    warm: option(
      'Load each side a second time, with the cache that its cold load left',
      yesOrNo().default(false),
    ),
    har: option('Replay this HAR file with contents instead of recording pages', filePath()),
    waterfalls: option('Draw both waterfalls as well, on one time axis', yesOrNo().default(false)),
    label: shared.label('trial'),
    ...requestOptions(20),
    ...formOptions(trialForms),
    timeout: option(
      'Seconds that a page may take to load',
      wholeNumber(1, 3_600),
      '120; three times what is expected, where that is more',
    ),
    ...visitorOptions("the browser's"),
    mapHost: shared.mapHost,
    allowHost: shared.allowHost,
    memory: shared.memory,
  },
  examples: [
    ['trial http://brindlebay.test/ --refit brindle-bay-refit', 'before anybody deploys the refit'],
    [
      'trial http://brindlebay.test/ --refit brindle-bay-refit --each',
      'what each fix brings alone',
    ],
    ['trial http://brindlebay.test/ --fix defer,styles-first', 'two fixes, without a refit'],
    ['trial http://brindlebay.test/ --without-host tags.driftcount.test', 'without a third party'],
    ['trial http://brindlebay.test/ --files mended', 'with files made by hand'],
    ['trial --group "maker profiles" --of-group 2', 'on two pages of a page group'],
    ['trial --har recording.har --fix compress,minify', 'on a recording of any origin'],
    [
      'trial http://brindlebay.test/ --refit brindle-bay-refit --film both.png',
      'what visitors see',
    ],
  ],
});
