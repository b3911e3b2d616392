import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';

/** A way to a server that can be cut. It is in a thread: the program under test holds up its own while it waits. */
export interface Proxy {
  /** The address of a database behind it. */
  through(address: string): string;
  /**
   * Cuts the connection, once, when the program next says a word to the server.
   *
   * @param heard whether the server still hears it; its answer is lost in any case
   */
  cutAt(word: string, heard: boolean): void;
  /** Cuts the connection, once, when the server next says a word: the program does not hear it. */
  cutAtAnswer(word: string): void;
  /** Whether what was to be cut has been. */
  isCut(): boolean;
  /** Lets nothing through any more, without a word, and nobody in; or ends that. */
  mute(isMute: boolean): void;
  /** What it is told by, for a thread that tells it while this one waits. */
  readonly shared: SharedArrayBuffer;
  close(): Promise<void>;
}

/** Where the thread looks whether it is mute. */
const mutePlace = 255;

export async function startProxy(port: number): Promise<Proxy> {
  const file = fileURLToPath(new URL('proxy-thread.mjs', import.meta.url));
  // Shared, because nobody reads messages while the program waits.
  const cut = new SharedArrayBuffer(256);
  const thread = new Worker(file, { workerData: { port, cut } });
  const [own] = (await once(thread, 'message')) as [number];
  const at = (word: string, how: 0 | 1 | 2) => {
    const bytes = new Uint8Array(cut);
    bytes.set(Buffer.from(word), 2);
    bytes[1] = how;
    Atomics.store(bytes, 0, word.length);
  };
  return {
    through: (address) => {
      const url = new URL(address);
      url.port = String(own);
      return url.href;
    },
    cutAt: (word, heard) => at(word, heard ? 1 : 0),
    cutAtAnswer: (word) => at(word, 2),
    isCut: () => Atomics.load(new Uint8Array(cut), 0) === 0,
    shared: cut,
    mute: (isMute) => {
      Atomics.store(new Uint8Array(cut), mutePlace, isMute ? 1 : 0);
    },
    close: async () => {
      await thread.terminate();
    },
  };
}
