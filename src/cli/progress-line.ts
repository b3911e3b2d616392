import { Presets, SingleBar } from 'cli-progress';
import { shorten } from '../output/plain-text.js';
import type { Progress } from '../tasks/progress.js';

const titles: Readonly<Record<Progress['stage'], string>> = {
  pages: 'visiting pages',
  images: 'encoding images',
  files: 'writing files',
  loads: 'loading',
  pictures: 'drawing pictures',
};

/** Lines are written this many milliseconds apart where there is no terminal. */
const lineInterval = 2_000;

/** Shows progress on stderr: a bar on a terminal, a line now and then elsewhere. */
export class ProgressLine {
  readonly #stream: NodeJS.WriteStream;
  readonly #quiet: boolean;
  #bar: SingleBar | undefined;
  #stage: Progress['stage'] | undefined;
  #lastLine = 0;

  constructor(stream: NodeJS.WriteStream, quiet: boolean) {
    this.#stream = stream;
    this.#quiet = quiet;
  }

  readonly show = (progress: Progress): void => {
    if (this.#quiet) return;
    if (this.#stream.isTTY) this.#draw(progress);
    else this.#write(progress);
  };

  /** Takes the bar away; must be called before anything else is printed. */
  readonly clear = (): void => {
    this.#bar?.stop();
    this.#bar = undefined;
    this.#stage = undefined;
  };

  #draw({ stage, done, total, doing }: Progress): void {
    const doingText = shorten(doing, Math.max(10, (this.#stream.columns || 80) - 62));
    if (stage !== this.#stage) {
      this.clear();
      this.#stage = stage;
      this.#bar = new SingleBar(
        {
          format: `${titles[stage]} {bar} {value}/{total} {left} {doing}`,
          barsize: 24,
          hideCursor: true,
          clearOnComplete: true,
          stream: this.#stream,
          etaBuffer: 8,
          formatTime: (seconds: number) => `${seconds} s`,
        },
        Presets.shades_classic,
      );
      this.#bar.start(total, done, { doing: doingText, left: '' });
      return;
    }
    this.#bar?.setTotal(total);
    this.#bar?.update(done, { doing: doingText, left: this.#timeLeft(done) });
  }

  #started = 0;
  #timeLeft(done: number): string {
    if (done === 0 || this.#bar === undefined) {
      this.#started = performance.now();
      return '';
    }
    const total = this.#bar.getTotal();
    if (this.#started === 0) this.#started = performance.now();
    const seconds = ((performance.now() - this.#started) / done / 1000) * (total - done);
    return seconds >= 1 ? `about ${Math.round(seconds)} s left` : '';
  }

  #write({ stage, done, total, doing }: Progress): void {
    const now = performance.now();
    const ends = done === total;
    if (!ends && stage === this.#stage && now - this.#lastLine < lineInterval) return;
    this.#stage = stage;
    this.#lastLine = now;
    const what = doing ? `: ${shorten(doing, 100)}` : '';
    this.#stream.write(`${titles[stage]} ${done}/${total}${what}\n`);
  }
}
