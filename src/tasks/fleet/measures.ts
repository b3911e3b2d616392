import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { BrowserError } from '../../core/base/errors.js';
import { browserVariable, findSurveyBrowser } from '../../browser/chromium/find-browser.js';

/**
 * What the measurements of this machine depend on, in words: programs with the same may share a survey.
 *
 * @throws BrowserError where there is no browser.
 */
export function measuresOf({ name, version }: { name: string; version: string }): string {
  const browser = findSurveyBrowser();
  const { stdout } = browser
    ? spawnSync(browser, ['--version'], { encoding: 'utf8', timeout: 20_000 })
    : { stdout: '' };
  const number = /\d+(?:\.\d+)+/.exec(stdout ?? '')?.[0];
  if (number === undefined)
    throw new BrowserError('no browser was found that tells its version', {
      hint: `install Chromium, or set ${browserVariable} to the path of one`,
    });
  const [node] = process.versions.node.split('.');
  return `${name} ${version}, Chromium ${number}, Node.js ${node}`;
}

/** The name under which a queue has the tasks for those who measure alike. */
export function taskName(measures: string): string {
  return `lynx-${createHash('sha256').update(measures).digest('hex').slice(0, 12)}`;
}
