import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';

const root = fileURLToPath(new URL('../..', import.meta.url));

/** What is in the archive that would be published. */
export interface PackedFiles {
  readonly filename: string;
  readonly size: number;
  readonly files: readonly { readonly path: string }[];
}

export interface InstalledPackage {
  /** The program, as the package puts it at the disposal of whoever installs it. */
  readonly program: string;
  readonly packed: PackedFiles;
}

/** Packs what was built and installs it in an empty folder; the archive is left in another. */
export async function installPackage(archives: string, folder: string): Promise<InstalledPackage> {
  // Without the build that goes before: it would take away the program that other tests run meanwhile.
  const pack = ['pack', '--json', '--silent', '--ignore-scripts', '--pack-destination', archives];
  const told = await npm(pack, root);
  const [packed] = JSON.parse(told.slice(told.indexOf('['))) as [PackedFiles];
  await npm(['init', '--yes'], folder);
  const archive = join(archives, packed.filename);
  await npm(['install', '--no-audit', '--no-fund', '--prefer-offline', archive], folder);
  return { program: join(folder, 'node_modules/.bin/zlynx'), packed };
}

async function npm(values: readonly string[], cwd: string): Promise<string> {
  const { stdout } = await promisify(execFile)('npm', values, { cwd, maxBuffer: 64_000_000 });
  return stdout;
}
