import { readFile } from 'node:fs/promises';
import { text } from 'node:stream/consumers';
import { messageOf, NotFoundError, UsageError } from '../../core/base/errors.js';
import type { Handler } from '../command.js';
import type { proveCommand } from '../commands/prove.js';
import { proveForms } from '../forms/prove.js';
import { accessesOf } from '../options/access.js';
import { hostsOf, memoryOf } from '../options/shared.js';

/** The status of a call whose markup does not hold. */
const doesNotHold = 1;

export const handler: Handler<typeof proveCommand> = async (settings, file, { show, task }) => {
  const { page, selector, markup, files, styles } = settings;
  const { prove } = await import('../../tasks/prove.js');
  const proof = await prove(page, selector, await read('markup', markup), {
    ...task,
    ...{
      views: file.views,
      policy: file.policy,
      files,
      ...hostsOf(settings),
      ...memoryOf(settings),
    },
    styles: styles === undefined ? '' : await read('styles', styles),
    accesses: accessesOf(file.access, settings, process.env),
  });
  await show(proveForms, proof, settings);
  if (task.signal.aborted) return 130;
  return proof.views.some(({ problem }) => problem !== null) ? doesNotHold : 0;
};

async function read(what: string, path: string | undefined): Promise<string> {
  if (path === undefined && process.stdin.isTTY)
    throw new UsageError('say which file has the markup', {
      hint: 'prove PAGE SELECTOR FILE, or let another program write it: … | prove PAGE SELECTOR',
    });
  try {
    return (path === undefined ? await text(process.stdin) : await readFile(path, 'utf8')).trim();
  } catch (error) {
    throw new NotFoundError(`cannot read the ${what}: ${messageOf(error)}`);
  }
}
