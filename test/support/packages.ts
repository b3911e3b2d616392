import { spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/**
 * Installs packages of Debian where that can be done without asking anybody.
 *
 * @returns why they are not there; `undefined` if they are
 */
export function providePackages(names: readonly string[]): string | undefined {
  const missing = () => names.filter((name) => !isInstalled(name));
  if (missing().length === 0) return undefined;
  if (process.getuid?.() !== 0) return `${missing().join(', ')} cannot be installed: not root`;
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const call = ['install', '-y', '-qq', '--no-install-recommends', ...missing()];
  // Servers that their packages start would hold the usual ports, and are not ours to use.
  apt(['update', '-qq'], env);
  apt(call, { ...env, RUNLEVEL: '1' });
  const left = missing();
  return left.length === 0 ? undefined : `${left.join(', ')} cannot be had from Debian here`;
}

/** One call after another: test files that run side by side may want packages at the same time. */
function apt(values: readonly string[], env: NodeJS.ProcessEnv): void {
  spawnSync('flock', [join(tmpdir(), 'lynx-packages.lock'), 'apt-get', ...values], { env });
}

function isInstalled(name: string): boolean {
  const { stdout } = spawnSync('dpkg-query', ['-W', '-f', '${Status}', name], { encoding: 'utf8' });
  return stdout.includes('install ok installed');
}
