import { InnerChannels } from '../chromium/channel.js';
import type { Channel } from '../chromium/channel.js';

/** Listens to the processes of a page besides its main one. */
export interface ProcessListener {
  /**
   * Is called before the process does anything; it waits for the answer.
   *
   * @param url of its script, if it is a worker
   */
  begun(channel: Channel, url: string): Promise<unknown>;
  ended(channel: Channel): void;
}

/** The most processes of a page that are listened to; the requests of others are not seen. */
const maxProcesses = 500;

/**
 * Listens to the frames of other sites and the workers of a page. Each of them has a process or thread of its
 * own that the tab does not report on, and may have further ones in turn. Must be attached before the page is
 * loaded.
 */
export async function watchOtherProcesses(tab: Channel, listener: ProcessListener): Promise<void> {
  let count = 0;
  const watch = async (channel: Channel): Promise<void> => {
    const inner = new InnerChannels(channel, (ended) => listener.ended(ended));
    channel.on('Target.attachedToTarget', ({ sessionId, targetInfo }) => {
      const process = inner.open(sessionId);
      const ready =
        ++count > maxProcesses ? [] : [listener.begun(process, targetInfo.url), watch(process)];
      // One that is gone before it could be listened to is no trouble of anybody's.
      void Promise.allSettled(ready)
        .then(() => process.send('Runtime.runIfWaitingForDebugger'))
        .catch(() => {});
    });
    await channel.send('Target.setAutoAttach', {
      autoAttach: true,
      waitForDebuggerOnStart: true,
      flatten: false,
    });
  };
  await watch(tab);
}
