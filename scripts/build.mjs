// Builds the program: TypeScript to dist/, the probe to one script that runs inside pages, and the command line to
// a bundle that starts quickly.
import { spawnSync } from 'node:child_process';
import { copyFileSync, cpSync, rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { build as buildApp } from 'vite';

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
  // It is sent to every document that is measured, and read there anew.
  minify: true,
});

rmSync(fileURLToPath(new URL('../dist/bundle', import.meta.url)), { recursive: true, force: true });
// To load hundreds of modules takes longer than most of the work.
const native = ['sharp', 'libsql', 'playwright-core', 'esbuild', '@minify-html/node'];
// They read files of their own at the place where they are installed.
const withFiles = ['tinypool', 'svgo', 'css-tree', 'fontverter', 'subset-font'];
// Loaded by a watch alone, for which a few milliseconds at its start are nothing.
const ofWatch = ['nodemailer', 'prom-client'];
// Loaded for a workspace on a server alone.
const ofServer = ['pg', 'synckit', 'graphile-worker'];
// Each a single file that is loaded when the first image is read; in the bundle it would be a tenth of the package.
const ofImages = ['exifreader'];
// CommonJS whose names a bundle loses when it is loaded late.
const byName = ['selfsigned'];
// The demo knows its pictures by the files that draw them; its folder is as far from the bundle as from `tasks/`.
const demo = {
  name: 'demo',
  setup: ({ onResolve }) =>
    onResolve({ filter: /^\.\.\/\.\.\/demo\// }, ({ path }) => ({ path, external: true })),
};
// The argument parser brings a later version of it, whose tables of characters take longer to load than a command runs.
const stringWidth = {
  name: 'string-width',
  setup: ({ onResolve }) =>
    onResolve({ filter: /^string-width$/ }, () => ({
      path: fileURLToPath(import.meta.resolve('string-width')),
    })),
};
// All that is used of it reads a text: its entry for browsers leaves out what fetches documents, which is most of it.
const cheerio = {
  name: 'cheerio',
  setup: ({ onResolve }) =>
    onResolve({ filter: /^cheerio$/ }, () => ({
      path: fileURLToPath(new URL('../browser/index.js', import.meta.resolve('cheerio'))),
    })),
};
/** How everything that runs on Node.js is bundled. */
const onNode = {
  absWorkingDir: root,
  bundle: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  external: [...native, ...withFiles, ...ofWatch, ...ofServer, ...ofImages, ...byName],
  plugins: [demo, stringWidth, cheerio],
  legalComments: 'none',
  // Names stay, for whoever reads an error; what only lays code out is a tenth of the package.
  minifyWhitespace: true,
  // Some packages are written for `require`.
  banner: {
    js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
  },
};
await build({
  ...onNode,
  entryPoints: ['src/cli/main.ts'],
  // As deep as where it was compiled to: the manifest is found from there.
  outfile: 'dist/bundle/cli/main.js',
});
// All commands in one file, of which the parts that are called are run: what was compiled of it is kept, which the runtime
// does for modules of this kind alone.
await build({
  ...onNode,
  entryPoints: ['src/cli/run-program.ts'],
  outfile: 'dist/bundle/cli/program.cjs',
  format: 'cjs',
  // Only what can be required can be loaded by it.
  supported: { 'dynamic-import': false },
  define: { 'import.meta.url': 'moduleUrl' },
  banner: { js: "const moduleUrl = require('node:url').pathToFileURL(__filename).href;" },
});
// A thread starts from a file of its own.
await build({
  ...onNode,
  entryPoints: ['src/texts/text-worker.ts'],
  outfile: 'dist/bundle/texts/text-worker.js',
});
await build({
  ...onNode,
  entryPoints: ['src/store/postgres/connection-thread.ts'],
  outfile: 'dist/bundle/postgres/connection-thread.js',
});
// So does a process.
await build({
  ...onNode,
  entryPoints: ['src/tasks/vector/vector-worker.ts'],
  outfile: 'dist/bundle/vector/vector-worker.js',
});
// The program that every report carries in itself.
await buildApp({
  configFile: fileURLToPath(new URL('../report-app/vite.config.ts', import.meta.url)),
});
cpSync(
  fileURLToPath(new URL('../dist/src/tasks/report-app', import.meta.url)),
  fileURLToPath(new URL('../dist/bundle/report-app', import.meta.url)),
  { recursive: true },
);
copyFileSync(
  fileURLToPath(new URL('../dist/src/browser/in-page.bundle.js', import.meta.url)),
  fileURLToPath(new URL('../dist/bundle/in-page.bundle.js', import.meta.url)),
);
