import { spawnSync } from 'node:child_process';
import { temporaryFolder } from './folder.js';

/** Where the tests of a workspace find a server, as its superuser; without one they use folders. */
export const serverVariable = 'LYNX_TEST_SERVER';

let databases = 0;

/** The place of a new workspace: a folder, or a database where the tests are run for those. */
export function freshPlace(): string {
  const server = process.env[serverVariable];
  if (!server) return temporaryFolder();
  const name = `test_${process.pid}_${++databases}`;
  const done = spawnSync('psql', [server, '-qc', `CREATE DATABASE ${name}`], { encoding: 'utf8' });
  if (done.status !== 0) throw new Error(done.stderr);
  return new URL(name, server).href;
}
