import { existsSync } from 'node:fs';
import { UsageError } from '../../core/base/errors.js';
import type { Handler } from '../command.js';
import type { initCommand } from '../commands/init.js';
import { configTemplate } from '../options/config-template.js';
import { writeResult } from '../write-result.js';

export const handler: Handler<typeof initCommand> = async ({ out, force }, _file, { say }) => {
  if (existsSync(out) && !force)
    throw new UsageError(`${out} is there already`, {
      hint: 'edit it, or write over it with --force',
    });
  await writeResult(out, configTemplate, '--out');
  say(`${out} written: every setting is a comment until you remove its "#".`);
};
