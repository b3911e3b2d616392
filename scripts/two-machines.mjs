// Three workers on two machines, as docs/fleet.md has them, on one: two network namespaces with addresses of their own, a
// PostgreSQL server from Debian's package, and a site whose pages take a while. It begins with nothing, and leaves nothing.
//
//   sudo node scripts/two-machines.mjs [pages]
import { spawn, spawnSync } from 'node:child_process';
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  rmSync,
} from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';

const pages = Number(process.argv[2] ?? 30);
const program = fileURLToPath(new URL('../dist/bundle/cli/main.js', import.meta.url));
const machines = ['one', 'two'].map((name, at) => ({
  ...{ name: `lynx-${name}`, link: `lynx${at}` },
  ...{ here: `10.77.${at + 1}.1`, there: `10.77.${at + 1}.2` },
}));
const [{ here }] = machines;
const [postgresPort, sitePort] = [15_432, 18_080];

if (process.getuid?.() !== 0) fail('network namespaces are for root: run it with sudo');
if (!existsSync('/usr/lib/postgresql')) fail('install the package postgresql first');
if (!existsSync(program)) fail('build the program first: npm run build');

const folder = mkdtempSync(join(tmpdir(), 'lynx-two-machines-'));
const children = [];
try {
  for (const machine of machines) addMachine(machine);
  await startServer();
  const site = await startSite();
  const address = `postgres://lynx:kites@${here}:${postgresPort}/kites`;
  const workers = [machines[0], machines[0], machines[1]];
  workers.forEach(({ name }, at) => {
    const call = [program, 'worker', '--name', `${name}-${at}`, '--workspace', address];
    start('ip', ['netns', 'exec', name, process.execPath, ...call], { stdio: 'inherit' });
  });
  const zealous = (...values) =>
    spawnSync(process.execPath, [program, ...values, '--workspace', address], { stdio: 'inherit' });
  const label = ['--label', 'kites', '--pages', String(pages), '--view', 'laptop'];
  zealous('survey', `http://${here}:${sitePort}/`, '--hand-over', ...label);
  while (!isFinished(address)) {
    await pause(4_000);
    zealous('worker', '--list');
  }
  zealous('surveys');
  zealous('rank', '--top', '3');
  site.close();
} finally {
  for (const child of children.reverse()) await stop(child);
  for (const { name, link } of machines) {
    run('ip', ['netns', 'del', name]);
    run('ip', ['link', 'del', link]);
  }
  rmSync(folder, { recursive: true, force: true });
}

/** A namespace that reaches this one by a link of its own. */
function addMachine({ name, link, here: near, there }) {
  must('ip', ['netns', 'add', name]);
  must('ip', ['link', 'add', link, 'type', 'veth', 'peer', 'name', 'up0', 'netns', name]);
  must('ip', ['addr', 'add', `${near}/24`, 'dev', link]);
  must('ip', ['link', 'set', link, 'up']);
  const inside = (...values) => must('ip', ['-n', name, ...values]);
  inside('addr', 'add', `${there}/24`, 'dev', 'up0');
  inside('link', 'set', 'up0', 'up');
  inside('link', 'set', 'lo', 'up');
  inside('route', 'add', 'default', 'via', near);
}

async function startServer() {
  const [newest] = readdirSync('/usr/lib/postgresql').sort((one, other) => other - one);
  const of = (name) => join('/usr/lib/postgresql', newest, 'bin', name);
  const id = (flag) => Number(run('id', [flag, 'postgres']).stdout);
  const as = { uid: id('-u'), gid: id('-g') };
  const data = join(folder, 'server');
  chmodSync(folder, 0o755);
  mkdirSync(data);
  chownSync(data, as.uid, as.gid);
  const inside = { ...as, cwd: data };
  must(
    of('initdb'),
    ['-D', data, '-U', 'postgres', '-E', 'UTF8', '--locale', 'C.UTF-8', '-N'],
    inside,
  );
  const rules = ['local all all trust', 'host all all 10.77.0.0/16 scram-sha-256'].join('\n');
  must('sh', ['-c', 'printf "%s\\n" "$1" > pg_hba.conf', 'sh', rules], inside);
  const listen = machines.map((machine) => machine.here).join(',');
  start(of('postgres'), ['-D', data, '-p', String(postgresPort), '-h', listen, '-k', data], {
    ...inside,
    stdio: 'ignore',
  });
  const ask = (sql) =>
    run(of('psql'), ['-h', data, '-p', String(postgresPort), '-U', 'postgres', '-qc', sql], inside);
  while (ask('SELECT 1').status !== 0) await pause(200);
  ask("CREATE ROLE lynx LOGIN PASSWORD 'kites'");
  ask('CREATE DATABASE kites OWNER lynx');
}

async function startSite() {
  const site = createServer(({ url = '/' }, answer) => {
    const at = Number(/\d+/.exec(url)?.[0] ?? 0);
    if (url !== '/' && !url.startsWith('/kite-')) return answer.writeHead(404).end();
    const links = [3 * at + 1, 3 * at + 2, 3 * at + 3].map(
      (to) => `<a href="/kite-${to}">${to}</a>`,
    );
    const body = `<!doctype html><title>Kite ${at}</title><h1>Kite ${at}</h1>${links.join(' ')}`;
    setTimeout(() => answer.setHeader('content-type', 'text/html').end(body), 1_000);
  });
  await new Promise((resolve) => site.listen(sitePort, here, resolve));
  return site;
}

function isFinished(address) {
  const { stdout } = run(process.execPath, [
    program,
    'worker',
    '--list',
    '--json',
    '--workspace',
    address,
  ]);
  return JSON.parse(stdout).surveys.length === 0;
}

function start(command, values, options) {
  const child = spawn(command, values, options);
  children.push(child);
  return child;
}

async function stop(child) {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGINT');
  await ended;
}

function run(command, values, options = {}) {
  return spawnSync(command, values, { encoding: 'utf8', ...options });
}

function must(command, values, options) {
  const { status, stderr } = run(command, values, options);
  if (status !== 0) fail(`${command} ${values.join(' ')}: ${stderr}`);
}

function fail(words) {
  process.stderr.write(`two-machines: ${words}\n`);
  process.exit(3);
}
