import { defineCommand } from '../command.js';
import { fleetForms } from '../forms/fleet.js';
import { formOptions } from '../forms/form.js';
import { filePath, shortText, yesOrNo } from '../options/checks.js';
import { accessOptions } from '../options/access-options.js';
import { option } from '../options/option.js';
import { shared } from '../options/shared.js';
import { surveyOptions } from '../options/survey.js';

export const workerCommand = defineCommand({
  name: 'worker',
  describe:
    'Work on the surveys of a workspace on a PostgreSQL server, together with other machines',
  positionals: {},
  options: {
    list: option(
      'Do not work: show the surveys that are worked on, and the workers with what they hold',
      yesOrNo().default(false),
    ),
    name: option('What this worker is called', shortText(), 'the name of the machine'),
    tabs: surveyOptions.tabs,
    memory: shared.memory,
    ...accessOptions,
    ...formOptions(fleetForms),
    browserState: option('File of cookies and local storage that a browser saved', filePath()),
  },
  examples: [
    ['worker --workspace postgres://lynx@db.test/kites', 'take work of any survey, until Ctrl-C'],
    [
      "worker --workspace postgres://lynx@db.test/kites --basic 'staging.test=$LOGIN'",
      'for a site that asks for a password, which never stands in the database',
    ],
    ['worker --list --workspace postgres://lynx@db.test/kites', 'who works on what'],
    [
      'worker --list --metrics-file fleet.prom --workspace postgres://lynx@db.test/kites',
      'the same as OpenMetrics',
    ],
  ],
});
