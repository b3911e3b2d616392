import { providePackages } from '../support/packages.js';
import { serverVariable } from '../support/place.js';
import { serverPackages, startPostgres } from './postgres-server.js';

/** Starts the server that all tests of this kind share, where it can be had. */
export default async function setup(): Promise<(() => Promise<void>) | undefined> {
  const missing = providePackages(serverPackages);
  if (missing) {
    process.stderr.write(`skipped: ${missing}\n`);
    return undefined;
  }
  const server = await startPostgres();
  process.env[serverVariable] = `postgres://postgres@127.0.0.1:${server.port}/postgres`;
  return () => server.close();
}
