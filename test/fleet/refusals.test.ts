import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { noSketch } from '../../src/core/survey/document-sketch.js';
import { noBytes } from '../../src/core/load/request.js';
import { defaultViews } from '../../src/core/visitors/view.js';
import { schemaVersion } from '../../src/store/schema.js';
import { Workspace } from '../../src/store/workspace.js';
import { contentHashOf } from '../../src/images/hash.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { run } from '../support/program.js';
import { freePort } from '../support/free-port.js';
import { providePackages } from '../support/packages.js';
import { password, serverPackages, startPostgres } from './postgres-server.js';
import type { PostgresServer } from './postgres-server.js';

const missing = providePackages(serverPackages);

describe.skipIf(missing)('a workspace on a server', () => {
  let server: PostgresServer;
  beforeAll(async () => {
    server = await startPostgres();
  });
  afterAll(() => server.close());

  /** The line that a person reads, and what to do. */
  const refusal = (
    address: string,
    open: (place: string) => Workspace = (one) => Workspace.open(one),
  ) => {
    try {
      open(address).close();
    } catch (error) {
      const { message, hint, code } = error as Record<'message' | 'hint' | 'code', string>;
      expect(code).toBe('WORKSPACE');
      expect(message).not.toContain(password);
      return `${message} – ${hint}`;
    }
    return 'opened';
  };

  it('says that nobody answers', async () => {
    const port = await freePort();
    expect(refusal(`postgres://analyst@127.0.0.1:${port}/bay`)).toMatch(
      /^postgres:\/\/analyst@127\.0\.0\.1:\d+\/bay: nobody answers there .*– start the server/,
    );
  });

  it('says that the password is wrong, or missing, and does not tell it', () => {
    const wrong = server.database().replace(password, `not-${password}`);
    expect(refusal(wrong)).toMatch(/the password is wrong .*PGPASSWORD/);
  });

  it('says that there is no such database, or no workspace in it', () => {
    const address = server.database();
    expect(refusal(address.replace(/bay_\d+$/, 'nowhere'))).toMatch(/no such database .*createdb/);
    expect(refusal(address, (place) => Workspace.openExisting(place))).toMatch(
      /^there is no workspace in postgres:\/\/analyst@127\.0\.0\.1:\d+\/bay_\d+ – run zealous-lynx survey/,
    );
  });

  it('refuses the workspace of a newer program, and leaves it as it is', () => {
    const address = server.database();
    Workspace.open(address).close();
    server.ask(address, `UPDATE workspace SET version = ${schemaVersion + 1}`);
    expect(refusal(address)).toMatch(/newer version of this program .*update zealous-lynx/);
    expect(server.ask(address, 'SELECT version FROM workspace')).toBe(String(schemaVersion + 1));
  });

  it('says which right a role lacks', () => {
    const address = server.database();
    server.ask(
      address,
      'ALTER SCHEMA public OWNER TO postgres; REVOKE ALL ON SCHEMA public FROM PUBLIC',
    );
    server.ask(address, 'GRANT USAGE ON SCHEMA public TO analyst');
    expect(refusal(address)).toMatch(
      /the role lacks a right \(permission denied for schema public\).*GRANT/,
    );
    const other = server.database();
    Workspace.open(other).close();
    server.ask(other, 'ALTER TABLE survey OWNER TO postgres');
    const workspace = Workspace.open(other);
    expect(() => workspace.surveys.list()).toThrow(/the role lacks a right .*table survey/);
    workspace.close();
  });

  it('says that a server is too old', () => {
    const address = server.database();
    // What the program asks is answered by a function of ours.
    server.ask(
      address,
      `CREATE FUNCTION public.current_setting(text) RETURNS text LANGUAGE sql AS $$ SELECT '120017' $$`,
    );
    server.ask(address, 'ALTER ROLE analyst SET search_path = public, pg_catalog');
    expect(refusal(address)).toMatch(/the server is PostgreSQL 12 – use PostgreSQL 13 or newer/);
    server.ask(address, 'ALTER ROLE analyst RESET search_path');
  });

  it('keeps bodies in a folder that machines share, where the address names one', async () => {
    const folder = temporaryFolder();
    const address = `${server.database()}?bodies=${encodeURIComponent(folder)}`;
    const [one, other] = [Workspace.open(address), Workspace.open(address)];
    const body = Buffer.from('a kite over the bay');
    const hash = contentHashOf(body);
    await one.bodies.keep(hash, body);
    expect(await other.bodies.read(hash)).toEqual(body);
    expect(server.ask(address, 'SELECT count(*) FROM body')).toBe('0');
    one.close();
    other.close();
  });

  it('makes its tables once, whoever comes first', () => {
    const address = server.database();
    const [one, other] = [Workspace.open(address), Workspace.open(address)];
    expect(one.surveys.list()).toEqual(other.surveys.list());
    expect(server.ask(address, 'SELECT count(*) FROM workspace')).toBe('1');
    one.close();
    other.close();
  });

  it('says that another program went on, where this one was not heard of for long', () => {
    const address = server.database();
    const [one, other] = [Workspace.open(address), Workspace.open(address)];
    const plan = { given: ['http://a.test/'], hosts: ['http://a.test/'], scope: {} };
    const { id } = one.surveys.begin('bay', one.now(), [], defaultViews, plan);
    const page = {
      ...{ url: 'http://a.test/', finalUrl: 'http://a.test/', status: 200, depth: 0, visits: null },
      ...{ group: null, error: null, bytesByType: noBytes() },
    };
    const record = { page, document: '', visits: [], curves: [], shape: noSketch };
    const lost = one.leases.take('survey-1');
    one.pages.add(id, record, undefined, () => lost.confirm());
    // As if it had been cut off for so long.
    server.ask(
      address,
      "UPDATE lease SET host = 'elsewhere', seen_at = now() - interval '2 minutes'",
    );
    const own = other.leases.take('survey-1');
    const next = { ...record, page: { ...page, url: 'http://a.test/next' } };
    expect(() => one.pages.add(id, next, undefined, () => lost.confirm())).toThrow(
      expect.objectContaining({
        code: 'BUSY',
        message: expect.stringMatching(/^another program went on with survey-1/) as string,
        hint: expect.stringMatching(/nothing is lost/) as string,
      }),
    );
    other.pages.add(id, next, undefined, () => own.confirm());
    expect(other.pages.list(id)).toHaveLength(2);
    own.release();
    one.close();
    other.close();
  });

  it('has workers on servers alone, and nothing for them to do with a folder', async () => {
    const cwd = temporaryFolder();
    const address = server.database();
    const alone = await run(['worker'], { cwd });
    expect([alone.status, alone.stderr]).toEqual([
      2,
      expect.stringMatching(/PostgreSQL server .*--workspace postgres:/),
    ]);
    const folders = { 'without a page': '.', 'of a site': temporaryFolder() };
    writeFiles(folders['of a site'], { 'index.html': '<h1>Brindle Bay</h1>' });
    for (const folder of Object.values(folders)) {
      const refused = await run(['survey', folder, '--hand-over', '--workspace', address], { cwd });
      expect([refused.status, refused.stderr]).toEqual([
        2,
        expect.stringMatching(/cannot be handed over/),
      ]);
    }
  });
});
