import type { Browser, BrowserContextOptions } from 'playwright-core';
import { BrowserError, messageOf } from '../../core/base/errors.js';
import type { View } from '../../core/visitors/view.js';
import { browserVariable, findBrowser, findSurveyBrowser } from './find-browser.js';
import type { HostMap } from './host-map.js';
import type { SlowConnections } from './slow-connections.js';

/** Keeps the browser from connecting to anything but the page's own servers. */
const quiet = [
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-quic',
  '--no-first-run',
];

export interface LaunchOptions {
  /**
   * Keeps the frames of other origins in the process of their page, where they can be measured with it; not for
   * timing, which that would change.
   */
  readonly oneProcess?: boolean;
  /** The proxy of all connections; it must know the hosts that are mapped elsewhere. */
  readonly connections?: Pick<SlowConnections, 'port'> | undefined;
  /** SHA-256 of a public key, in base64, that is trusted whatever certificate it comes with. */
  readonly trustedKey?: string;
}

/**
 * Starts a headless browser.
 *
 * @param hosts hosts that are found elsewhere than the name service says
 * @throws BrowserError when none is installed, or when it does not start.
 */
export async function launchBrowser(
  hosts: HostMap = {},
  { oneProcess = false, connections, trustedKey }: LaunchOptions = {},
): Promise<Browser> {
  const executablePath = oneProcess ? findSurveyBrowser() : findBrowser();
  if (!executablePath)
    throw new BrowserError('no browser found', {
      hint: `install Chromium, Chrome or Edge, or set ${browserVariable} to the path of one`,
    });
  const rules = Object.entries(hosts).map(([host, address]) => `MAP ${host} ${address}`);
  const args = [...quiet];
  if (oneProcess)
    args.push(
      '--disable-site-isolation-trials',
      '--disable-features=IsolateOrigins,site-per-process',
      // A page that eats memory is to lose its own renderer, and not the machine.
      '--js-flags=--max-old-space-size=1024',
    );
  if (connections)
    // Loopback is what it is for, and what browsers by themselves do not ask a proxy for.
    args.push(
      `--proxy-server=socks5://127.0.0.1:${connections.port}`,
      '--proxy-bypass-list=<-loopback>',
    );
  else if (rules.length > 0) args.push(`--host-resolver-rules=${rules.join(',')}`);
  if (trustedKey !== undefined) args.push(`--ignore-certificate-errors-spki-list=${trustedKey}`);
  // Chromium refuses its sandbox to the superuser, which is who runs in most containers.
  if (process.getuid?.() === 0) args.push('--no-sandbox');
  // Takes most of a second to load: only who needs a browser pays for it.
  const { chromium } = await import('playwright-core');
  try {
    return await chromium.launch({
      executablePath,
      args,
      // The driver lets pages open windows unasked, which visitors' browsers do not.
      ignoreDefaultArgs: ['--disable-popup-blocking'],
      handleSIGINT: false,
      handleSIGTERM: false,
      handleSIGHUP: false,
    });
  } catch (error) {
    throw new BrowserError(`the browser did not start: ${messageOf(error)}`, {
      hint: `try ${executablePath} --headless by hand, or name another one in ${browserVariable}`,
      cause: error,
    });
  }
}

/** The settings that make a browser context look like a view. */
export function contextFor(view: Omit<View, 'share' | 'name'>): BrowserContextOptions {
  return {
    viewport: { width: view.width, height: view.height },
    deviceScaleFactor: view.density,
    isMobile: view.touch,
    hasTouch: view.touch,
    acceptDownloads: false,
    serviceWorkers: 'block',
  };
}
