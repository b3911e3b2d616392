import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { findBrowser, findSurveyBrowser } from '../../src/browser/chromium/find-browser.js';
import { oneView, outcomeOf, run, runJson, start } from '../support/program.js';
import { temporaryFolder } from '../support/folder.js';
import { providePackages } from '../support/packages.js';
import { serverPackages, startPostgres } from './postgres-server.js';
import type { PostgresServer } from './postgres-server.js';
import { startSlowSite } from './slow-site.js';
import type { SlowSite } from './slow-site.js';

const missing = providePackages(serverPackages);
const pages = 12;

describe.skipIf(missing)('a worker whose browser does not start', () => {
  let server: PostgresServer;
  let site: SlowSite;
  let cwd: string;
  let address: string;

  beforeAll(async () => {
    cwd = temporaryFolder(afterAll);
    server = await startPostgres();
    site = await startSlowSite({ pages, wait: 300 });
    address = server.database();
  });
  afterAll(async () => {
    site?.close();
    await server?.close();
  });

  /** A browser that says its version, and starts only as long as a file is there; it notes that it was started. */
  const fragile = () => {
    const [works, started] = ['works', 'started'].map((name) => join(cwd, name)) as [
      string,
      string,
    ];
    const path = join(cwd, 'browser');
    const real = findSurveyBrowser() ?? findBrowser();
    const script = `#!/bin/sh
      case "$*" in *--version*) exec "${real}" "$@";; esac
      touch "${started}"
      [ -e "${works}" ] && exec "${real}" "$@"
      echo 'error while loading shared libraries' >&2; exit 127\n`;
    writeFileSync(path, script, { mode: 0o755 });
    return { env: { ZEALOUS_LYNX_BROWSER: path }, works, started };
  };
  const on = () => ['--workspace', address];
  const handOver = (label: string) =>
    run(['survey', site.start, '--hand-over', '--label', label, ...oneView, ...on()], { cwd });

  it('says so and ends, before it takes anything', async () => {
    const { env } = fragile();
    expect((await handOver('first')).status).toBe(0);
    const { status, stdout, stderr } = await run(['worker', ...on()], { cwd, env });
    expect(status).toBe(3);
    expect(stderr).toMatch(/the browser did not start/);
    expect(stdout).not.toContain('Ready');
    expect(site.asked).toEqual([]);
    expect(server.ask(address, 'SELECT count(*) FROM worker')).toBe('0');
  });

  it('gives back what it held where it fails later on, and no page is lost by it', async () => {
    const { env, works, started } = fragile();
    writeFileSync(works, '');
    const broken = start(['worker', '--name', 'broken', ...on()], { cwd, env });
    const ended = outcomeOf(broken);
    while (!existsSync(started)) await pause(50);
    // It has started once, to be sure: from now on it does not.
    while (server.ask(address, 'SELECT count(*) FROM worker') === '0') await pause(20);
    rmSync(works);
    expect((await handOver('second')).status).toBe(0);
    const { status, stderr } = await ended;
    expect([status, stderr]).toEqual([3, expect.stringContaining('the browser did not start')]);

    const working = start(['worker', '--name', 'sound', ...on()], { cwd });
    const end = outcomeOf(working);
    const isFinished = `SELECT count(finished_at) FROM survey WHERE label = 'second'`;
    while (server.ask(address, isFinished) === '0') await pause(200);
    working.kill('SIGTERM');
    const { stdout } = await end;
    expect(stdout).toContain(`Finished second: ${pages} pages\n`);
    const { surveys } = await runJson<{ surveys: { pages: number }[] }>(['surveys', ...on()], {
      cwd,
    });
    expect(surveys[0]!.pages).toBe(pages);
    expect(server.ask(address, 'SELECT count(error) FROM page')).toBe('0');
  });
});
