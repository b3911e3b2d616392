import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Worker } from 'node:worker_threads';
import { PostgresDatabase } from '../../src/store/postgres/database.js';
import { Workspace } from '../../src/store/workspace.js';
import { contentHashOf } from '../../src/images/hash.js';
import { providePackages } from '../support/packages.js';
import { serverPackages, startPostgres } from './postgres-server.js';
import type { PostgresServer } from './postgres-server.js';
import { startProxy } from './proxy.js';
import type { Proxy } from './proxy.js';

const missing = providePackages(serverPackages);

describe.skipIf(missing)('a connection that is lost', () => {
  let server: PostgresServer;
  let proxy: Proxy;
  beforeAll(async () => {
    server = await startPostgres();
    proxy = await startProxy(server.port);
  });
  afterAll(async () => {
    await proxy.close();
    await server.close();
  });

  /** A table of numbers, and work that adds two of them. */
  const numbers = () => {
    const address = server.database();
    server.ask(address, 'CREATE TABLE number (value integer); ALTER TABLE number OWNER TO analyst');
    const database = new PostgresDatabase(proxy.through(address));
    const add = database.prepare('INSERT INTO number VALUES (?)');
    let attempts = 0;
    const work = (between = () => {}) => {
      attempts++;
      add.run(1);
      between();
      add.run(2);
      return attempts;
    };
    return {
      ...{ database, work },
      kept: () =>
        server.ask(address, 'SELECT string_agg(value::text, $$ $$ ORDER BY value) FROM number'),
    };
  };

  it('in the middle of a transaction takes it back, and the work is done again', () => {
    const { database, work, kept } = numbers();
    let undone = 0;
    proxy.cutAt('middle', false);
    const result = database.transaction(
      () => work(() => void database.prepare("SELECT 'the middle'").get()),
      () => undone++,
    );
    expect([result, undone, kept()]).toEqual([2, 1, '1 2']);
    database.close();
  });

  it('before the end of a transaction takes it back, and the work is done again', () => {
    const { database, work, kept } = numbers();
    proxy.cutAt('COMMIT', false);
    expect(database.transaction(() => work())).toBe(2);
    expect(kept()).toBe('1 2');
    database.close();
  });

  it('before the answer that all was kept leaves it kept once', () => {
    const { database, work, kept } = numbers();
    proxy.cutAt('COMMIT', true);
    expect(database.transaction(() => work())).toBe(1);
    expect(kept()).toBe('1 2');
    database.close();
  });

  it('without a word is noticed, and the work is done again', async () => {
    const { database, work, kept } = numbers();
    // Nobody here can say that the way is free again while the program waits.
    const other = new Worker(
      `setTimeout(() => Atomics.store(new Uint8Array(require('node:worker_threads').workerData), 255, 0), 30_000)`,
      { eval: true, workerData: proxy.shared },
    );
    proxy.mute(true);
    // Nothing is sent before the end, and nothing is answered then.
    expect(database.transaction(() => work())).toBe(2);
    expect(kept()).toBe('1 2');
    await other.terminate();
    database.close();
  });

  it('between two questions is opened again, as after a crash of the server', async () => {
    const address = server.database();
    const workspace = Workspace.open(address);
    const body = Buffer.from('a kite');
    const hash = contentHashOf(body);
    workspace.surveys.begin('before', 'now', [], [], { given: [], hosts: [], scope: {} });
    await server.crash();
    expect(workspace.surveys.labels()).toEqual(['before']);
    await workspace.bodies.keep(hash, body);
    await server.crash();
    expect(await workspace.bodies.read(hash)).toEqual(body);
    workspace.close();
  });
});
