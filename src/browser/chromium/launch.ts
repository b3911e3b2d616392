import { createRequire } from 'node:module';
import type * as Driver from 'playwright-core';
import type { Browser, BrowserContextOptions } from 'playwright-core';
import { BrowserError, messageOf } from '../../core/base/errors.js';
import type { View } from '../../core/visitors/view.js';
import { requireCompiled } from '../../system/compiled-code.js';
import { privateTemp } from '../../system/private-temp.js';
import { MemoryWatch, usualMemory } from './memory-watch.js';
import { browserVariable, findBrowser, findSurveyBrowser } from './find-browser.js';
import { openConnections } from '../../reach/connections.js';
import type { Connections } from '../../reach/connections.js';
import { Reach } from '../../reach/reach.js';

/** Keeps the browser from connecting to anything but the page's own servers. */
const quiet = [
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-quic',
  '--no-first-run',
];

/**
 * Features that a browser for surveys is without. It heeds the last list that it is given, and the driver gives one of its own:
 * what that has for good reasons is repeated.
 */
const withoutFeatures = [
  // Frames of other origins stay in the process of their page.
  'IsolateOrigins',
  'site-per-process',
  // A new frame for every page makes the browser attach its tools anew, which costs a tenth of a survey.
  'RenderDocument',
  // `http:` is asked for as it stands, and not by `https:` first.
  'HttpsUpgrades',
  'HttpsFirstBalancedModeAutoEnable',
  // A page that is left does not stay in view until the next one is painted.
  'PaintHolding',
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  // These speak to machines that no page has asked for.
  'MediaRouter',
  'OptimizationHints',
  'NetworkTimeServiceQuerying',
  'PreconnectToSearch',
];

/**
 * Everything goes through the proxy: no name is looked up by the browser, and no datagram goes past it (RFC 8828, mode 4).
 */
const nothingBeside = [
  '--proxy-bypass-list=<-loopback>',
  '--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1',
  '--force-webrtc-ip-handling-policy=disable_non_proxied_udp',
];

export interface LaunchOptions {
  /**
   * Keeps the frames of other origins in the process of their page, where they can be measured with it; not for
   * timing, which that would change.
   */
  readonly oneProcess?: boolean;
  /** Milliseconds that connecting to this machine is to take, as on a real line of that round trip. */
  readonly latency?: number;
  /** Bytes that all of its processes may have; by default what the machine can bear. */
  readonly memory?: number | undefined;
  /** SHA-256 of a public key, in base64, that is trusted whatever certificate it comes with. */
  readonly trustedKey?: string;
  /** Called with what a person should know of how the browser runs. */
  readonly onNotice?: Notice | undefined;
}

/** Tells a person something; what has a key is told once for all. */
export type Notice = (words: string, key: string) => void;

/**
 * Starts a headless browser, which connects only to where it may.
 *
 * @throws BrowserError when none is installed, or when it does not start.
 */
export async function launchBrowser(
  reach: Reach = Reach.open(),
  {
    oneProcess = false,
    latency = 0,
    memory = usualMemory(),
    trustedKey,
    onNotice,
  }: LaunchOptions = {},
): Promise<Browser> {
  const executablePath = oneProcess ? findSurveyBrowser() : findBrowser();
  if (!executablePath)
    throw new BrowserError('no browser found', {
      hint: `install Chromium, Chrome or Edge, or set ${browserVariable} to the path of one`,
    });
  const [insider] = reach.inside;
  if (insider !== undefined && !reach.isGuarded)
    onNotice?.(
      `${insider} is on this machine or in its network, so its pages may use what else is there`,
      'inside',
    );
  const args = [...quiet];
  if (oneProcess)
    args.push(
      '--disable-site-isolation-trials',
      `--disable-features=${withoutFeatures.join(',')}`,
      // A page that eats memory is to lose its own renderer, and not the machine.
      '--js-flags=--max-old-space-size=1024',
    );
  if (trustedKey !== undefined) args.push(`--ignore-certificate-errors-spki-list=${trustedKey}`);
  const rules = Object.entries(reach.hosts).map(([host, address]) => `MAP ${host} ${address}`);
  let connections: Connections | undefined;
  if (reach.isGuarded || latency > 0) {
    connections = await openConnections(
      latency,
      (host, port) => reach.placeOf(host, port),
      (host, address) => reach.found(host, address),
    );
    args.push(`--proxy-server=socks5://127.0.0.1:${connections.port}`, ...nothingBeside);
  } else if (rules.length > 0) args.push(`--host-resolver-rules=${rules.join(',')}`);
  try {
    const browser = await start(executablePath, args, onNotice);
    if (connections) browser.once('disconnected', () => void connections.close());
    await MemoryWatch.start(browser, memory);
    return browser;
  } catch (error) {
    await connections?.close();
    throw new BrowserError(`the browser did not start: ${messageOf(error)}`, {
      hint: `try ${executablePath} --headless by hand, or name another one in ${browserVariable}`,
      cause: error,
    });
  }
}

/** Starts it in its sandbox; without, where there can be none, which is then told. */
async function start(
  executablePath: string,
  args: readonly string[],
  onNotice: Notice | undefined,
): Promise<Browser> {
  const { chromium } = loadDriver();
  const launch = (chromiumSandbox: boolean) =>
    inPrivateTemp(() =>
      chromium.launch({
        executablePath,
        args: [...args],
        chromiumSandbox,
        // The driver lets pages open windows unasked, which visitors' browsers do not.
        ignoreDefaultArgs: ['--disable-popup-blocking'],
        handleSIGINT: false,
        handleSIGTERM: false,
        handleSIGHUP: false,
      }),
    );
  // Chromium refuses its sandbox to the superuser, which is who runs in most containers.
  if (process.getuid?.() === 0) {
    onNotice?.(
      'the browser runs without its sandbox, because this is the superuser: run the program as an ordinary user where you can',
      'sandbox-superuser',
    );
    return launch(false);
  }
  try {
    return await launch(true);
  } catch (error) {
    // What the browser said of it stands in the log that the driver's message ends with.
    const { message } = error as Error;
    if (!/sandboxing failed|no usable sandbox|move to new namespace/i.test(message)) throw error;
    onNotice?.(
      'the browser runs without its sandbox, which this system does not allow: permit user namespaces (sysctl kernel.unprivileged_userns_clone=1, or the AppArmor profile of the browser)',
      'sandbox-refused',
    );
    return launch(false);
  }
}

/**
 * Takes half a second where it must be compiled: only who needs a browser pays for it. A module of this kind is required in a
 * fifth less time than it is imported, which reads it once more for the names that it exports.
 */
function loadDriver(): typeof Driver {
  return requireCompiled('playwright-core', createRequire(import.meta.url)) as typeof Driver;
}

/** The driver makes profiles where the system says that temporary files go, and so does the browser. */
async function inPrivateTemp<Result>(work: () => Promise<Result>): Promise<Result> {
  const before = process.env['TMPDIR'];
  const folder = privateTemp();
  process.env['TMPDIR'] = folder;
  try {
    return await work();
  } finally {
    if (before === undefined) delete process.env['TMPDIR'];
    else process.env['TMPDIR'] = before;
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
