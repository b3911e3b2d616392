import { spawn, spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { Deployment } from 'kubernetes-models/apps/v1';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { parse } from 'yaml';
import { temporaryFolder } from '../support/folder.js';
import { providePackages } from '../support/packages.js';
import { runJson } from '../support/program.js';
import { password, serverPackages, startPostgres } from './postgres-server.js';
import type { PostgresServer } from './postgres-server.js';
import { startSlowSite } from './slow-site.js';
import type { SlowSite } from './slow-site.js';

const root = fileURLToPath(new URL('../..', import.meta.url));
const manual = readFileSync(join(root, 'docs/fleet.md'), 'utf8');
const blockOf = (language: string) =>
  new RegExp(`\`\`\`${language}\n([^]*?)\`\`\``).exec(manual)![1]!;

interface Manifest extends Record<string, unknown> {
  readonly spec: {
    readonly template: {
      readonly spec: {
        readonly containers: readonly [
          { readonly args: readonly string[]; readonly env: readonly { readonly name: string }[] },
        ];
      };
    };
  };
}

const manifest = parse(blockOf('yaml')) as Manifest;
const [container] = manifest.spec.template.spec.containers;

it('has a manifest that Kubernetes accepts', () => {
  new Deployment(manifest as never).validate();
  const nameless = structuredClone(manifest) as { spec: { selector?: unknown } };
  delete nameless.spec.selector;
  expect(() => new Deployment(nameless as never).validate()).toThrow('selector');
});

it.skipIf(providePackages(['systemd']))('has a unit that systemd accepts', () => {
  const path = join(temporaryFolder(), 'zealous-lynx-worker.service');
  // The program is not installed here.
  const unit = blockOf('ini').replace('/usr/bin/zealous-lynx', process.execPath);
  const complaintsOf = (text: string) => {
    writeFileSync(path, text);
    return must('sh', ['-c', `systemd-analyze verify ${path} 2>&1`]);
  };
  expect(complaintsOf(unit)).toBe('');
  expect(complaintsOf(unit.replace('KillMode=mixed', 'KillMode=sometimes'))).toContain('sometimes');
});

const missing =
  providePackages([...serverPackages, 'buildah', 'debootstrap']) ??
  (process.getuid?.() === 0 ? undefined : 'containers are built by root here');

describe.skipIf(missing)('the container of a worker', () => {
  const base = 'docker.io/library/node:20-bookworm-slim';
  const folder = temporaryFolder(() => {});
  const store = ['root', 'runroot'].flatMap((name) => [`--${name}`, join(folder, name)]);
  const call = (...values: readonly string[]) => [...store, '--storage-driver', 'vfs', ...values];
  const env = { ...process.env, BUILDAH_ISOLATION: 'chroot' };
  const buildah = (...values: readonly string[]) => must('buildah', call(...values), { env });
  let server: PostgresServer;
  let site: SlowSite;

  beforeAll(async () => {
    buildah('commit', '-q', filledWith(buildah, makeSystem(folder)), base);
    server = await startPostgres();
    site = await startSlowSite({ pages: 4, wait: 100 });
    // A system is fetched, unpacked and packed again, beside other tests.
  }, 400_000);

  afterAll(async () => {
    site?.close();
    await server?.close();
    rmSync(folder, { recursive: true, force: true });
  });

  it('is built from what Debian and npm have, and works on a survey as the manifest starts it', async () => {
    const context = join(folder, 'context');
    mkdirSync(context);
    // Without the build that goes before: it would take away the program that other tests run meanwhile.
    const pack = ['pack', '--silent', '--ignore-scripts', '--pack-destination', context];
    must('npm', pack, { cwd: root });
    writeFileSync(join(context, 'Containerfile'), blockOf('dockerfile'));
    buildah('bud', '-q', '--pull=never', '-t', 'localhost/worker', context);
    const worker = buildah('from', '--pull=never', 'localhost/worker').split('\n').at(-1)!;
    const { OCIv1: image } = JSON.parse(buildah('inspect', worker)) as {
      readonly OCIv1: { readonly config: { readonly Entrypoint: string[]; readonly User: string } };
    };
    const { Entrypoint: entrypoint, User: user } = image.config;
    expect(user).toBe('lynx');

    const address = new URL(server.database());
    address.password = '';
    const values: Record<string, string> = {
      ZEALOUS_LYNX_WORKSPACE: address.href,
      PGPASSWORD: password,
    };
    expect(container.env.map(({ name }) => name)).toEqual(Object.keys(values));
    const within = Object.entries(values).flatMap(([name, value]) => ['--env', `${name}=${value}`]);
    const start = (...command: readonly string[]) =>
      spawn('buildah', call('run', '--user', user, ...within, worker, '--', ...command), { env });

    const survey = ['survey', site.start, '--hand-over', '--view', 'laptop', '--label', 'kites'];
    expect(await endOf(start(entrypoint[0]!, ...survey))).toMatchObject({ status: 0 });
    const working = start(...entrypoint, ...container.args);
    const ended = endOf(working);
    const place = ['--workspace', `${address.href.replace('@', `:${password}@`)}`];
    while (working.exitCode === null) {
      const { surveys } = await runJson<{ surveys: { finishedAt: string | null }[] }>(
        ['surveys', ...place],
        { cwd: folder },
      );
      if (surveys[0]!.finishedAt !== null) break;
      await pause(1_000);
    }
    const { workers } = await runJson<{ workers: { pid: number; tabs: number }[] }>(
      ['worker', '--list', ...place],
      { cwd: folder },
    );
    expect(workers).toHaveLength(1);
    process.kill(workers[0]!.pid, 'SIGTERM');
    const { status, told } = await ended;
    expect(told).toMatch(/^Finished kites: 4 pages$/m);
    expect(status).toBe(0);
    expect([...site.visits().values()]).toEqual([1, 1, 1, 1]);
    // As long as the longest of its steps may take, and the others.
  }, 600_000);
});

/**
 * Debian's smallest system with the Node.js of this machine: what the image is that the container file begins with. It asks
 * registries as this machine does, with its certificates and the settings of its npm.
 */
function makeSystem(folder: string): string {
  const system = join(folder, 'system');
  must('debootstrap', ['--variant=minbase', 'bookworm', system]);
  const npm = must('npm', ['root', '--global']);
  cpSync(process.execPath, join(system, 'usr/bin/node'));
  for (const path of [npm, '/etc/ssl/certs']) {
    mkdirSync(join(system, path), { recursive: true });
    must('cp', ['-rT', '--dereference', path, join(system, path)]);
  }
  must('chroot', [system, 'ln', '-s', join(npm, 'npm/bin/npm-cli.js'), '/usr/bin/npm']);
  const cafile = must('npm', ['config', 'get', 'cafile']);
  const settings = ['audit=false', 'update-notifier=false'];
  if (cafile !== 'null') settings.push(`cafile=${cafile}`);
  mkdirSync(join(system, 'usr/etc'), { recursive: true });
  writeFileSync(join(system, 'usr/etc/npmrc'), settings.join('\n'));
  return system;
}

/** A container with nothing but a system in it. */
function filledWith(buildah: (...values: string[]) => string, system: string): string {
  const archive = `${system}.tar`;
  must('tar', ['-C', system, '-cf', archive, '.']);
  const name = buildah('from', 'scratch');
  buildah('add', '-q', name, archive, '/');
  rmSync(archive);
  return name;
}

function must(program: string, values: readonly string[], options: object = {}): string {
  const done = spawnSync(program, values, {
    encoding: 'utf8',
    timeout: 400_000,
    maxBuffer: 64_000_000,
    ...options,
  });
  if (done.status === 0) return done.stdout.trim();
  throw new Error(
    `${program} ${values.join(' ')}: ${done.stdout.slice(-2_000)}${done.stderr.slice(-2_000)}`,
  );
}

async function endOf(child: ReturnType<typeof spawn>) {
  let told = '';
  for (const stream of [child.stdout, child.stderr])
    stream?.setEncoding('utf8').on('data', (text: string) => (told += text));
  const status = await new Promise<number | null>((resolve) => child.once('close', resolve));
  return { status, told };
}
