import type { Channel } from './channel.js';

/**
 * Does work on the document that is loaded now, and ends as soon as the page is another one: some commands of the
 * browser, a picture for one, are never answered once their document has gone.
 *
 * @param cdp of a page, whose events (`Page.enable`) are told already: to ask for them here would hold up what is measured
 * @throws Error which `lostWords` knows, when the page reloads itself or goes on to another one.
 */
export async function whileItStays<Result>(
  cdp: Channel,
  work: () => Promise<Result>,
): Promise<Result> {
  let listen: (event: NavigatedFrame) => void = () => {};
  const left = new Promise<never>((_, reject) => {
    // Only the page itself has no parent; navigation within a document has an event of its own.
    listen = ({ frame }) => {
      if (frame.parentId === undefined) reject(new Error('the target navigated'));
    };
  });
  cdp.on('Page.frameNavigated', listen);
  try {
    return await Promise.race([work(), left]);
  } finally {
    cdp.off('Page.frameNavigated', listen);
  }
}

interface NavigatedFrame {
  readonly frame: { readonly parentId?: string };
}
