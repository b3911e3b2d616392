import { spawnSync } from 'node:child_process';
import { createHmac } from 'node:crypto';
import { once } from 'node:events';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { IncomingHttpHeaders } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import { SMTPServer } from 'smtp-server';
import { describe, expect, it, onTestFinished } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { providePackages } from '../support/packages.js';
import { photograph } from '../support/pictures.js';
import { oneView, outcomeOf, run, runJson, start } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';
import type { Answer } from '../support/server.js';

interface Alarm {
  readonly occasion: string;
  readonly kind: string;
  readonly title: string;
}

const page = (body: string) => `<!doctype html><html lang="en"><title>K</title><p>${body}</html>`;
const secret = 'sail and line';

/** A webhook that answers as it is told to, and keeps what it took. */
async function webhook(statusOf: (attempt: number) => number | null) {
  const taken: { headers: IncomingHttpHeaders; body: string }[] = [];
  let attempts = 0;
  const server = createServer((request, response) => {
    let body = '';
    request.setEncoding('utf8').on('data', (part: string) => (body += part));
    request.on('end', () => {
      const status = statusOf(++attempts);
      // Hangs.
      if (status === null) return;
      if (status < 300) taken.push({ headers: request.headers, body });
      response.writeHead(status).end();
    });
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  onTestFinished(() => {
    server.closeAllConnections();
    server.close();
  });
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${port}/in`,
    taken: () => taken.splice(0),
    count: () => attempts,
  };
}

async function mailServer() {
  const mails: string[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onData: (stream, _session, done) => {
      let mail = '';
      stream.on('data', (part: Buffer) => (mail += part.toString()));
      stream.on('end', () => {
        mails.push(mail);
        done();
      });
    },
  });
  server.listen(0, '127.0.0.1');
  await once(server.server, 'listening');
  onTestFinished(() => void server.close());
  const { port } = server.server.address() as AddressInfo;
  return { address: `smtp://127.0.0.1:${port}`, mails: () => mails.splice(0) };
}

/** A site of one page, which an editor may change while it is watched. */
async function watchedSite() {
  const files: Record<string, Answer> = {
    '/': { body: page('<img src="/kite.jpg" width="100" alt="">') },
    '/kite.jpg': {
      type: 'image/jpeg',
      body: await photograph(200, 150, 1).jpeg().toBuffer(),
    },
  };
  const upload = await photograph(1200, 900, 2).jpeg({ quality: 95 }).toBuffer();
  const [calm, heavy] = [files['/kite.jpg']!, { type: 'image/jpeg', body: upload }];
  const server = await serve({
    '/': () => files['/']!,
    '/kite.jpg': () => files['/kite.jpg']!,
  });
  return {
    start: `${server.origin}/`,
    asked: server.asked,
    upload: () => (files['/kite.jpg'] = heavy),
    mend: () => (files['/kite.jpg'] = calm),
    /** Has the page wait for its picture, until it is mended. */
    hold: () => (files['/kite.jpg'] = { ...calm, endless: true }),
  };
}

const budgets =
  "budgets:\n  - { measure: heaviestImage, page: '/', most: 100000, reason: nobody waits for it }\n";

const onlyOnce = ['--once', ...oneView];

describe('watch', () => {
  it('tells every channel of each alarm once, and once when it is over', async () => {
    const cwd = temporaryFolder();
    const site = await watchedSite();
    // Two attempts fail before the first is taken.
    const hook = await webhook((attempt) => (attempt <= 2 ? 500 : 204));
    const { address, mails } = await mailServer();
    const alarms = [
      `  - { webhook: '${hook.url}', secret: $HOOK_SECRET }`,
      `  - { email: { to: [team@brindlebay.test], from: watch@brindlebay.test, server: '${address}' } }`,
      `  - { command: [sh, -c, 'cat >> told.json'] }`,
    ];
    writeFileSync(
      join(cwd, 'zealous-lynx.config.yaml'),
      `${budgets}alarms:\n${alarms.join('\n')}\n`,
    );
    const env = { HOOK_SECRET: secret };
    const round = async () => run(['watch', site.start, ...onlyOnce], { cwd, env });

    const calm = await round();
    expect(calm.status).toBe(0);
    expect(calm.stdout).toMatch(/surveyed · 1 page · .* · nothing wrong\n$/);

    site.upload();
    const heavy = await round();
    expect(heavy.status).toBe(1);
    expect(heavy.stdout).toMatch(/1 alarm · 3 messages sent/);
    expect(heavy.stdout).toMatch(
      /✗ heaviest image on \/: .* allowed 100 kB, most of it \/kite\.jpg/,
    );
    const [posted, ...more] = hook.taken();
    expect(more).toEqual([]);
    const alarm = JSON.parse(posted!.body) as Alarm;
    expect(schemaErrors('alarm', alarm)).toEqual([]);
    expect(alarm).toMatchObject({ occasion: 'begun', kind: 'budget' });
    const time = String(posted!.headers['zealous-lynx-time']);
    expect(Math.abs(Number(time) - Date.now() / 1000)).toBeLessThan(60);
    expect(posted!.headers['zealous-lynx-signature']).toBe(
      createHmac('sha256', secret).update(`${time}.${posted!.body}`).digest('hex'),
    );
    const [mail, ...others] = mails();
    expect(others).toEqual([]);
    expect(mail).toMatch(/^Subject: .*heaviest image on \//m);
    expect(mail).toMatch(/^To: team@brindlebay\.test/m);
    expect(JSON.parse(readFileSync(join(cwd, 'told.json'), 'utf8'))).toMatchObject({
      title: alarm.title,
    });
    writeFileSync(join(cwd, 'told.json'), '');

    // It lasts: nobody is told again.
    expect((await round()).status).toBe(1);
    expect([hook.taken(), mails()]).toEqual([[], []]);

    site.mend();
    const mended = await round();
    expect(mended.status).toBe(0);
    expect(mended.stdout).toMatch(/nothing wrong · 3 messages sent/);
    expect(hook.taken().map(({ body }) => (JSON.parse(body) as Alarm).occasion)).toEqual(['over']);
    expect(mails()).toHaveLength(1);
    // What nobody reads is no secret, and what is kept has none.
    const database = readFileSync(join(cwd, '.zealous-lynx', 'workspace.sqlite'));
    expect(database.includes(secret)).toBe(false);
    expect(database.includes('/in-the-open')).toBe(false);
    const { surveys } = await runJson<{ surveys: object[] }>(['history'], { cwd });
    expect(surveys).toHaveLength(4);
  });

  it('raises an alarm of its own kind when the site is down, and leaves no zeros in the history', async () => {
    const cwd = temporaryFolder();
    const site = await watchedSite();
    const { port } = new URL(site.start);
    const hook = await webhook(() => 204);
    writeFileSync(
      join(cwd, 'zealous-lynx.config.yaml'),
      `${budgets}alarms:\n  - { webhook: '${hook.url}' }\n`,
    );
    const at = (to: string) => ['watch', 'http://brindlebay.test/', '--map-host', `*.test=${to}`];
    const up = await run([...at(`127.0.0.1:${port}`), ...onlyOnce], { cwd });
    expect(up.status).toBe(0);
    // Nobody listens on the port for nothing (discard) of this machine.
    const down = await run([...at('127.0.0.1:9'), ...onlyOnce, '--retries', '0'], { cwd });
    expect(down.status).toBe(3);
    expect(down.stdout).toMatch(/the site cannot be reached · 1 alarm · 1 message sent/);
    const told = JSON.parse(hook.taken()[0]!.body) as Alarm;
    expect(told).toMatchObject({ kind: 'down', occasion: 'begun' });
    expect(told.title).toMatch(/^brindlebay\.test cannot be reached: /);
    const back = await run([...at(`127.0.0.1:${port}`), ...onlyOnce], { cwd });
    expect(back.status).toBe(0);
    expect((JSON.parse(hook.taken()[0]!.body) as Alarm).occasion).toBe('over');
    const history = await runJson<{
      surveys: { perVisit: { bytes: number } }[];
      leftOut: string[];
    }>(['history'], { cwd });
    expect(history.surveys).toHaveLength(2);
    expect(history.surveys.every(({ perVisit }) => perVisit.bytes > 0)).toBe(true);
    expect(history.leftOut).toEqual([]);
  });

  it('is not held up for long by a webhook that hangs, and tries again in the next round', async () => {
    const cwd = temporaryFolder();
    const site = await watchedSite();
    site.upload();
    const hook = await webhook((attempt) => (attempt <= 3 ? null : 204));
    writeFileSync(
      join(cwd, 'zealous-lynx.config.yaml'),
      `${budgets}alarms:\n  - { webhook: '${hook.url}' }\n`,
    );
    const hung = await run(['watch', site.start, ...onlyOnce], { cwd });
    expect(hung.status).toBe(1);
    expect(hung.stdout).toMatch(
      /webhook at 127\.0\.0\.1:\d+ \(\w{6}\) not reached \(no answer in 10 s\)/,
    );
    expect(hook.count()).toBe(3);
    await run(['watch', site.start, ...onlyOnce], { cwd });
    expect(hook.taken()).toHaveLength(1);
  });

  it('never runs twice in a workspace, goes on after a kill, and ends when it is told to', async () => {
    const cwd = temporaryFolder();
    const site = await watchedSite();
    site.hold();
    const call = ['watch', site.start, '--every', '1h', ...oneView];
    const first = start(call, { cwd });
    const told = outcomeOf(first);
    const lease = join(cwd, '.zealous-lynx', 'leases', 'watch.json');
    while (!existsSync(lease)) await after(20);
    const second = await run(call, { cwd });
    expect(second.status).toBe(3);
    expect(second.stderr).toMatch(/another program is at work on a watch of this workspace/);
    while (site.asked.length === 0) await after(5);
    first.kill('SIGKILL');
    await told;
    site.mend();

    const third = start(call, { cwd });
    const outcome = outcomeOf(third);
    let stdout = '';
    third.stdout!.on('data', (text: string) => (stdout += text));
    while (!/next on/.test(stdout)) await after(50);
    // A round lies behind, and the next is an hour away: a restart waits for it.
    third.kill('SIGTERM');
    const ended = await outcome;
    expect(ended.stderr).toMatch(/the round of .* did not come to its end/);
    const fourth = start(call, { cwd });
    const waiting = outcomeOf(fourth);
    while (!existsSync(lease)) await after(20);
    await after(1_000);
    fourth.kill('SIGTERM');
    expect(await waiting).toMatchObject({ status: 130, stdout: '' });
    const { surveys } = await runJson<{ surveys: { finishedAt: string | null }[] }>(['surveys'], {
      cwd,
    });
    expect(surveys.filter(({ finishedAt }) => finishedAt !== null)).toHaveLength(1);
  });

  it('gives figures that a parser of OpenMetrics reads, in a file and on loopback', async (context) => {
    const problem = providePackages(['python3-prometheus-client']);
    if (problem) return context.skip(problem);
    const cwd = temporaryFolder();
    const site = await watchedSite();
    writeFileSync(join(cwd, 'zealous-lynx.config.yaml'), budgets);
    const call = [
      ...['watch', site.start, '--every', '1h', '--metrics', '0', '--metrics-file', 'lynx.prom'],
      ...['--clock', site.start, '--runs', '2', '--network', 'fibre', ...oneView],
    ];
    const child = start(call, { cwd });
    const outcome = outcomeOf(child);
    let [stdout, stderr] = ['', ''];
    child.stdout!.on('data', (text: string) => (stdout += text));
    child.stderr!.on('data', (text: string) => (stderr += text));
    while (!/next on/.test(stdout)) await after(50);
    const address = /served at (http:\/\/127\.0\.0\.1:\d+\/metrics)/.exec(stderr)![1]!;
    const response = await fetch(address);
    const served = await response.text();
    expect(response.headers.get('content-type')).toMatch(/^application\/openmetrics-text/);
    child.kill('SIGTERM');
    await outcome;
    const text = readFileSync(join(cwd, 'lynx.prom'), 'utf8');
    expect(served).toBe(text);
    writeFiles(cwd, {
      'read.py': [
        'import sys, json',
        'from prometheus_client.openmetrics.parser import text_string_to_metric_families as read',
        'print(json.dumps({f.name: [[s.labels, s.value] for s in f.samples]',
        '  for f in read(sys.stdin.read())}))',
      ].join('\n'),
    });
    // Debian's own interpreter, which has Debian's packages.
    const python = existsSync('/usr/bin/python3') ? '/usr/bin/python3' : 'python3';
    const read = spawnSync(python, [join(cwd, 'read.py')], { input: text, encoding: 'utf8' });
    expect(read.stderr).toBe('');
    const families = JSON.parse(read.stdout) as Record<string, [Record<string, string>, number][]>;
    expect(families['zealous_lynx_up']).toEqual([[expect.anything(), 1]]);
    const { surveys } = await runJson<{
      surveys: { perVisit: { bytesByType: Record<string, number>; wasteBytes: number } }[];
    }>(['history'], { cwd });
    const { bytesByType, wasteBytes } = surveys[0]!.perVisit;
    for (const [{ type }, bytes] of families['zealous_lynx_visit_bytes']!)
      expect(bytes).toBe(bytesByType[type!]);
    expect(families['zealous_lynx_visit_waste_bytes']![0]![1]).toBe(wasteBytes);
    const load = families['zealous_lynx_marker_seconds']!.find(([of]) => of['marker'] === 'load')!;
    expect(load[0]).toMatchObject({ network: 'fibre', view: 'laptop', page: site.start });
    expect(load[1]).toBeGreaterThan(0);
    expect(load[1]).toBeLessThan(20);
    expect(families['zealous_lynx_budget_broken']![0]![1]).toBe(0);
  });

  it('prints one document a round', async () => {
    const cwd = temporaryFolder();
    const site = await watchedSite();
    writeFileSync(join(cwd, 'zealous-lynx.config.yaml'), budgets);
    const round = await runJson(['watch', site.start, ...onlyOnce], { cwd });
    expect(schemaErrors('round', round)).toEqual([]);
    expect(round).toMatchObject({ outcome: 'done', survey: { pages: 1 }, next: null });
  });
});
