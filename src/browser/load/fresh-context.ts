import type { Browser, CDPSession } from 'playwright-core';
import type { View } from '../../core/visitors/view.js';
import { InnerChannels } from '../chromium/channel.js';
import { sendHeaders } from '../chromium/access.js';
import type { BrowserState, VisitorSettings } from '../chromium/access.js';
import type { Channel } from '../chromium/channel.js';
import { savedState, setCookies, storageScript } from './saved-state.js';
import { clientHintsOf, userAgentOf } from '../chromium/user-agent.js';

/** A tab of a fresh context. */
export interface FreshTab {
  readonly channel: Channel;
  /** Makes a process behind the tab emulate the tab's device; the screen is set on the tab for all of them. */
  readonly applyConditions: (process: Channel) => Promise<unknown>;
  readonly close: () => Promise<void>;
}

/**
 * A service worker would respond in place of the server and load files unseen; the dialog of a page that
 * prints itself would block it.
 */
const heldBack = `if (self.ServiceWorkerContainer)
  ServiceWorkerContainer.prototype.register = () => Promise.reject(new Error('no service workers'));
  window.print = () => {};`;

/** What sets a context apart from the others of its browser. */
export interface ContextSettings {
  /** The SOCKS proxy of its connections, on loopback; the browser's by default. */
  readonly proxyPort?: number;
  /** Runs in every document before its own scripts. */
  readonly script?: string;
}

/**
 * A browsing context with empty caches whose tabs the driver does not listen to: every listener costs the
 * browser work, so only the code that times the page listens.
 */
export class FreshContext {
  readonly #script: string;
  readonly #browser: CDPSession;
  readonly #tabs: InnerChannels;
  readonly #id: string;
  readonly #view: Omit<View, 'share' | 'name'>;
  readonly #device: Device;
  readonly #visitor: VisitorSettings;
  readonly #state: BrowserState | undefined;

  private constructor(
    browser: CDPSession,
    id: string,
    view: Omit<View, 'share' | 'name'>,
    device: Device,
    visitor: VisitorSettings,
    state: BrowserState | undefined,
    script: string,
  ) {
    this.#script = script;
    this.#browser = browser;
    this.#tabs = new InnerChannels(browser);
    this.#id = id;
    this.#view = view;
    this.#device = device;
    this.#visitor = visitor;
    this.#state = state;
    browser.on('close', () => this.#tabs.close());
  }

  /** @throws Error when the browser is gone; NotFoundError, UsageError for a saved state that cannot be read. */
  static async open(
    browser: Browser,
    view: Omit<View, 'share' | 'name'>,
    visitor: VisitorSettings = {},
    { proxyPort, script = '' }: ContextSettings = {},
  ): Promise<FreshContext> {
    const state = savedState(visitor);
    const device = {
      userAgent: visitor.userAgent ?? (await userAgentOf(browser, view)),
      userAgentMetadata: clientHintsOf(view),
    };
    const session = await browser.newBrowserCDPSession();
    // Whatever becomes of this program, the context goes with the session.
    const { browserContextId } = await session.send('Target.createBrowserContext', {
      disposeOnDetach: true,
      ...(proxyPort !== undefined && {
        proxyServer: `socks5://127.0.0.1:${proxyPort}`,
        // Loopback, too, which browsers by themselves do not ask a proxy for.
        proxyBypassList: '<-loopback>',
      }),
    });
    await session.send('Browser.setDownloadBehavior', { behavior: 'deny', browserContextId });
    await setCookies(session, browserContextId, visitor, state);
    return new FreshContext(session, browserContextId, view, device, visitor, state, script);
  }

  async openTab(): Promise<FreshTab> {
    const { width, height, density, touch } = this.#view;
    const { targetId } = await this.#browser.send('Target.createTarget', {
      url: 'about:blank',
      browserContextId: this.#id,
      // A tab behind another is drawn once a second.
      newWindow: true,
      width,
      height,
    });
    const { sessionId } = await this.#browser.send('Target.attachToTarget', {
      targetId,
      flatten: false,
    });
    const channel = this.#tabs.open(sessionId);
    answerDialogs(channel);
    const { accesses = [], anyCertificate: ignore = false } = this.#visitor;
    const dress = (process: Channel) =>
      Promise.allSettled([
        sendHeaders(process, accesses),
        ...(ignore ? [process.send('Security.setIgnoreCertificateErrors', { ignore })] : []),
        process.send('Emulation.setUserAgentOverride', this.#device),
        process.send('Emulation.setTouchEmulationEnabled', { enabled: touch }),
        process.send('Page.addScriptToEvaluateOnNewDocument', {
          source: `${heldBack}\n${this.#state ? storageScript(this.#state) : ''}\n${this.#script}`,
          runImmediately: true,
        }),
      ]);
    await Promise.all([
      channel.send('Page.enable'),
      channel.send('Emulation.setFocusEmulationEnabled', { enabled: true }),
      channel.send('Emulation.setDeviceMetricsOverride', {
        ...{ width, height, screenWidth: width, screenHeight: height },
        deviceScaleFactor: density,
        mobile: touch,
        screenOrientation:
          touch && width < height
            ? { type: 'portraitPrimary', angle: 0 }
            : { type: 'landscapePrimary', angle: touch ? 90 : 0 },
      }),
      dress(channel),
    ]);
    const close = async () => void (await this.#browser.send('Target.closeTarget', { targetId }));
    return { channel, applyConditions: dress, close };
  }

  async close(): Promise<void> {
    await this.#browser.detach();
  }
}

/** A dialog would make the page wait for its visitor. */
function answerDialogs(channel: Channel): void {
  channel.on('Page.javascriptDialogOpening', ({ type }) => {
    const accept = type === 'beforeunload';
    channel.send('Page.handleJavaScriptDialog', { accept }).catch(() => {});
  });
}

/** The user agent of a browser on such a device. */
interface Device {
  readonly userAgent: string;
  readonly userAgentMetadata: ReturnType<typeof clientHintsOf>;
}
