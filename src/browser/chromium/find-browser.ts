import { accessSync, constants } from 'node:fs';
import { delimiter, join } from 'node:path';

/** The environment variable that names a browser. */
export const browserVariable = 'ZEALOUS_LYNX_BROWSER';

/** Browsers without windows: the same engine, which opens a view in a third of the time. */
const shells = ['chromium-headless-shell', 'chrome-headless-shell'];

const programs = [
  'chromium',
  'chromium-browser',
  'google-chrome-stable',
  'google-chrome',
  'microsoft-edge',
];

const macApplications = ['Chromium', 'Google Chrome', 'Microsoft Edge'];

const windowsPrograms = [
  'Chromium\\Application\\chrome.exe',
  'Google\\Chrome\\Application\\chrome.exe',
  'Microsoft\\Edge\\Application\\msedge.exe',
];

/**
 * The path of a Chromium-family browser: the one the environment names, else the first found in the
 * usual places of this system; `undefined` when there is none.
 */
export function findBrowser(
  environment: NodeJS.ProcessEnv = process.env,
  platform: NodeJS.Platform = process.platform,
): string | undefined {
  const named = environment[browserVariable];
  if (named) return isProgram(named) ? named : undefined;
  return usualPlaces(environment, platform).find(isProgram);
}

/**
 * The path of the browser for what is measured in layout and bytes alone: one without windows, where there is one. Times
 * are taken with the browser that visitors have.
 */
export function findSurveyBrowser(
  environment: NodeJS.ProcessEnv = process.env,
  platform: NodeJS.Platform = process.platform,
): string | undefined {
  const isNamed = Boolean(environment[browserVariable]);
  const shell = isNamed ? undefined : inPath(shells, environment).find(isProgram);
  return shell ?? findBrowser(environment, platform);
}

/** Where browsers are installed, the most likely place first. */
export function usualPlaces(environment: NodeJS.ProcessEnv, platform: NodeJS.Platform): string[] {
  switch (platform) {
    case 'darwin':
      return ['', environment['HOME'] ?? ''].flatMap((root) =>
        macApplications.map((name) => `${root}/Applications/${name}.app/Contents/MacOS/${name}`),
      );
    case 'win32':
      return ['PROGRAMFILES', 'PROGRAMFILES(X86)', 'LOCALAPPDATA']
        .flatMap((name) => environment[name] ?? [])
        .flatMap((root) => windowsPrograms.map((program) => `${root}\\${program}`));
    default:
      return inPath(programs, environment);
  }
}

/** Where programs may be by their names alone, the first name first. */
function inPath(names: readonly string[], environment: NodeJS.ProcessEnv): string[] {
  const folders = (environment['PATH'] ?? '').split(delimiter).filter(Boolean);
  const all = [...folders, '/usr/bin', '/usr/local/bin', '/snap/bin'];
  return names.flatMap((name) => all.map((folder) => join(folder, name)));
}

function isProgram(path: string): boolean {
  try {
    accessSync(path, constants.X_OK);
    return true;
  } catch {
    return false;
  }
}
