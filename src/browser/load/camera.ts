import type { Channel } from '../chromium/channel.js';

/** What a page showed from a moment on. */
export interface TimedPicture {
  /** Milliseconds since the epoch. */
  readonly time: number;
  /** JPEG. */
  readonly picture: Buffer;
}

/** The greatest width and height of a shot, in pixels. */
const maxSide = { maxWidth: 240, maxHeight: 480 };
const quality = 70;
/** The most shots kept: beyond it every other one is dropped, so that a page that never rests is filmed to its end. */
const maxShots = 300;

/**
 * Takes a picture of a page each time that the browser draws it anew. The browser has work with it: what is filmed is
 * not timed.
 */
export class Camera {
  readonly #cdp: Channel;
  #shots: TimedPicture[] = [];

  private constructor(cdp: Channel) {
    this.#cdp = cdp;
  }

  static async start(cdp: Channel): Promise<Camera> {
    const camera = new Camera(cdp);
    cdp.on('Page.screencastFrame', ({ data, metadata, sessionId }) => {
      camera.#keep({
        time: (metadata.timestamp ?? 0) * 1000,
        picture: Buffer.from(data, 'base64'),
      });
      cdp.send('Page.screencastFrameAck', { sessionId }).catch(() => {});
    });
    await cdp.send('Page.startScreencast', { format: 'jpeg', quality, ...maxSide });
    return camera;
  }

  #keep(shot: TimedPicture): void {
    this.#shots.push(shot);
    if (this.#shots.length > maxShots)
      this.#shots = this.#shots.filter((_, at) => at % 2 === 0 || at === this.#shots.length - 1);
  }

  /** Ends the film; the shots in the order in which they were taken. */
  async stop(): Promise<readonly TimedPicture[]> {
    await this.#cdp.send('Page.stopScreencast');
    return this.#shots;
  }
}
