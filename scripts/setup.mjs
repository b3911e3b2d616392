// Everything a fresh machine needs before the program or its tests can run: dependencies, a build, a
// browser. Uses Node alone; when nothing has changed it only looks and returns.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const at = (...parts) => join(root, ...parts);
const windows = process.platform === 'win32';

requireNode(20, 19);
installDependencies();
buildProgram();
await provideBrowser();

function requireNode(major, minor) {
  const [haveMajor, haveMinor] = process.versions.node.split('.').map(Number);
  if (haveMajor > major || (haveMajor === major && haveMinor >= minor)) return;
  fail(`Node ${major}.${minor} or newer is needed; this is ${process.versions.node}.`);
}

/** Installs from the lock file when it is not what was last installed. */
function installDependencies() {
  const stamp = at('node_modules', '.installed-lock');
  const lock = createHash('sha256')
    .update(readFileSync(at('package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  say('installing dependencies from the lock file …');
  const npm = windows ? 'npm.cmd' : 'npm';
  const done = run(npm, ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { shell: windows });
  if (!done) fail('npm ci failed; what it said stands above.');
  writeFileSync(stamp, lock);
}

/** Builds when any source is newer than the last build. */
function buildProgram() {
  const stamp = at('dist', '.built');
  const sources = ['src', 'demo', 'scripts/build.mjs', 'tsconfig.json', 'package-lock.json'];
  const built = existsSync(stamp) ? statSync(stamp).mtimeMs : 0;
  if (sources.every((source) => newest(at(source)) <= built)) return;
  say('building …');
  const began = new Date();
  if (!run(process.execPath, [at('scripts', 'build.mjs')])) fail('the build failed.');
  writeFileSync(stamp, `${began.toISOString()}\n`);
}

function newest(path) {
  const found = statSync(path);
  if (!found.isDirectory()) return found.mtimeMs;
  const inside = readdirSync(path).map((name) => newest(join(path, name)));
  return Math.max(found.mtimeMs, ...inside);
}

/** Finds a browser, or installs Debian's where that can be done without asking anybody. */
async function provideBrowser() {
  const { findBrowser, findSurveyBrowser, browserVariable } = await import(
    new URL('../dist/src/browser/chromium/find-browser.js', import.meta.url)
  );
  const tried = at('node_modules', '.browser-installed');
  const isBest = findSurveyBrowser() !== findBrowser() || process.env[browserVariable];
  if (findBrowser() && (isBest || existsSync(tried))) return;
  if (process.env[browserVariable])
    fail(
      `${browserVariable} is ${process.env[browserVariable]}, which is no program that can be run.`,
    );
  const before = superuser();
  if (before && succeeds('apt-get', ['--version'])) {
    say('installing Chromium and fonts with apt-get …');
    const environment = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    const packages = [
      'chromium',
      'chromium-headless-shell',
      'fonts-dejavu-core',
      'fonts-liberation',
    ];
    const [program, ...first] = [...before, 'apt-get'];
    run(program, [...first, 'update', '-qq'], { env: environment });
    for (const name of packages)
      run(program, [...first, 'install', '-y', '-qq', '--no-install-recommends', name], {
        env: environment,
      });
  }
  // One without windows is faster, and not necessary: it is not asked for twice.
  writeFileSync(tried, '');
  if (findBrowser()) return;
  fail(
    [
      'No browser was found. Any one of these will do:',
      '  Debian, Ubuntu:  sudo apt-get install chromium chromium-headless-shell',
      '  Fedora:          sudo dnf install chromium',
      '  macOS:           install Chromium, Chrome or Edge into /Applications',
      '  Windows:         install Chrome or Edge',
      `  anywhere:        set ${browserVariable} to the path of a Chromium-family browser`,
    ].join('\n'),
  );
}

/** What has to stand before a command to run it as the superuser without a password, if anything can. */
function superuser() {
  if (process.getuid?.() === 0) return [];
  return succeeds('sudo', ['-n', 'true']) ? ['sudo', '-n'] : undefined;
}

function succeeds(program, values) {
  return spawnSync(program, values, { stdio: 'ignore' }).status === 0;
}

function run(program, values, options = {}) {
  // stdout belongs to whatever runs after this; all of this is news, and goes to stderr.
  const { status } = spawnSync(program, values, { cwd: root, stdio: ['ignore', 2, 2], ...options });
  return status === 0;
}

function say(words) {
  process.stderr.write(`setup: ${words}\n`);
}

function fail(words) {
  process.stderr.write(`setup: ${words}\n`);
  process.exit(3);
}
