// Builds the program: TypeScript to dist/, and the probe to one script that runs inside pages.
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const root = fileURLToPath(new URL('..', import.meta.url));
const compiler = fileURLToPath(new URL('../node_modules/typescript/bin/tsc', import.meta.url));

const { status } = spawnSync(process.execPath, [compiler, '-p', 'tsconfig.json'], {
  cwd: root,
  stdio: 'inherit',
});
if (status !== 0) process.exit(status ?? 1);

await build({
  absWorkingDir: root,
  entryPoints: ['src/browser/in-page/main.ts'],
  outfile: 'dist/src/browser/in-page.bundle.js',
  bundle: true,
  format: 'iife',
  globalName: 'zealousLynx',
  target: 'es2022',
  legalComments: 'none',
});
