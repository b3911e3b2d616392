import { object, string } from 'yup';
import { wholeNumber, yesOrNo } from '../checks.js';
import { defineCommand } from '../command.js';

const defaultOut = 'brindle-bay-refit';

export const schema = object({
  serve: yesOrNo().default(false),
  port: wholeNumber(0, 65_535).default(0),
  out: string().min(1, 'the path of a folder').default(defaultOut),
});

export const demoCommand = defineCommand({
  call: 'demo',
  describe: 'The whole story on a site that comes with the program',
  options: {
    serve: { describe: 'Only serve the site, until Ctrl-C', type: 'boolean' },
    port: { describe: 'Port to serve on [any free one]', type: 'string', requiresArg: true },
    out: {
      describe: `Folder for the right-sized files [${defaultOut}]`,
      type: 'string',
      requiresArg: true,
    },
  },
  schema,
  examples: [
    ['demo', 'survey, rank, refit, clock and compare'],
    ['demo --serve --port 8080', 'only serve the site'],
  ],
  load: () => import('../handlers/demo.js'),
});
