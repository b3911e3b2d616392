import type { Browser } from 'playwright-core';
import type { View } from '../../core/visitors/view.js';

/** Touch screens narrower than this are phones. */
const phoneWidth = 600;

/** The user agent of each browser, read once. */
const names = new WeakMap<Browser, Promise<string>>();

/**
 * How the browser would call itself on a device like this: there are sites that answer phones otherwise.
 *
 * @throws Error when the browser is gone.
 */
export async function userAgentOf(
  browser: Browser,
  { touch, width }: Pick<View, 'touch' | 'width'>,
): Promise<string> {
  const known = names.get(browser) ?? ownNameOf(browser);
  names.set(browser, known);
  const name = await known;
  if (!touch) return name;
  const onAndroid = name.replace(/\([^)]*\)/, '(Linux; Android 10; K)');
  return width < phoneWidth ? onAndroid.replace(' Safari/', ' Mobile Safari/') : onAndroid;
}

/** The user agent client hints that a browser on such a device sends. */
export function clientHintsOf({ touch, width }: Pick<View, 'touch' | 'width'>) {
  return touch
    ? {
        platform: 'Android',
        platformVersion: '10',
        architecture: '',
        model: 'K',
        mobile: width < phoneWidth,
      }
    : { platform: 'Linux', platformVersion: '', architecture: 'x86', model: '', mobile: false };
}

/** The browser's own user agent, before any override. */
async function ownNameOf(browser: Browser): Promise<string> {
  const cdp = await browser.newBrowserCDPSession();
  const { userAgent } = await cdp.send('Browser.getVersion');
  await cdp.detach();
  return userAgent.replace('HeadlessChrome', 'Chrome');
}
