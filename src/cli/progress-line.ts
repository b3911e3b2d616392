import { MultiBar, Presets } from 'cli-progress';
import type { SingleBar } from 'cli-progress';
import { isInDocument, pathOf } from '../core/address/address.js';
import { shorten } from '../output/words/plain-text.js';
import { formatBytes } from '../output/words/units.js';
import type { OutputStream } from './streams.js';
import type { Progress, WastefulImage } from '../tasks/progress.js';

const titles: Readonly<Record<Progress['stage'], string>> = {
  pages: 'visiting pages',
  first: 'encoding images once',
  images: 'encoding images',
  files: 'writing files',
  bodies: 'refetching images',
  masters: 'looking for larger files',
  proof: 'trying markup in pages',
  recordings: 'recording pages',
  loads: 'loading',
  pictures: 'drawing pictures',
  looks: 'comparing images',
  figures: 'adding up surveys',
  sums: 'adding up images',
  asking: 'asking what has changed',
};

/** The unit that is counted in a rate. */
const units: Readonly<Record<Progress['stage'], string>> = {
  pages: 'pages',
  first: 'images',
  images: 'images',
  files: 'files',
  bodies: 'images',
  masters: 'images',
  proof: 'page views',
  recordings: 'pages',
  loads: 'loads',
  pictures: 'pictures',
  looks: 'images',
  figures: 'surveys',
  sums: 'parts',
  asking: 'files',
};

/** Lines are written this many milliseconds apart where there is no terminal. */
const lineInterval = 2_000;

/** The number of recent events that the rate is computed from: the next are most like the last. */
const remembered = 40;

/** Shows progress on stderr: a bar on a terminal, a line now and then elsewhere. */
export class ProgressLine {
  readonly #stream: OutputStream;
  readonly #quiet: boolean;
  #bars: MultiBar | undefined;
  #bar: SingleBar | undefined;
  /** A line for each of the worst images, under the bar. */
  #lines: SingleBar[] = [];
  #stage: Progress['stage'] | undefined;
  #lastLine = 0;
  /** When how many were done, oldest first. */
  #history: { readonly at: number; readonly done: number }[] = [];

  constructor(stream: OutputStream, quiet: boolean) {
    this.#stream = stream;
    this.#quiet = quiet;
  }

  readonly show = (progress: Progress): void => {
    if (this.#quiet) return;
    if (progress.stage !== this.#stage) {
      this.clear();
      this.#history = [];
    }
    this.#remember(progress.done);
    if (this.#stream.isTTY) this.#draw(progress);
    else this.#write(progress);
    this.#stage = progress.stage;
  };

  /** Takes the bar away; must be called before anything else is printed. */
  readonly clear = (): void => {
    this.#bars?.stop();
    this.#bars = undefined;
    this.#bar = undefined;
    this.#lines = [];
    this.#stage = undefined;
  };

  #remember(done: number): void {
    if (this.#history.at(-1)?.done === done) return;
    this.#history.push({ at: performance.now(), done });
    if (this.#history.length > remembered) this.#history.shift();
  }

  /** The outlook: `38 queued · 0.8 pages a second · about 47 s left`. */
  #ahead({ stage, done, total, left: told }: Progress): string {
    const [first] = this.#history;
    const passed = done - (first?.done ?? done);
    const seconds = (performance.now() - (first?.at ?? 0)) / 1000;
    const parts = stage === 'pages' ? [`${total - done} queued`] : [];
    if (told !== undefined) {
      if (told >= 1) parts.push(`about ${inWords(told)} left`);
    } else if (passed > 0 && seconds > 0.5) {
      const rate = passed / seconds;
      parts.push(`${rate < 10 ? rate.toFixed(1) : Math.round(rate)} ${units[stage]} a second`);
      const left = (total - done) / rate;
      if (left >= 1) parts.push(`about ${inWords(left)} left`);
    }
    return parts.join(' · ');
  }

  #draw(progress: Progress): void {
    const { stage, done, total, doing } = progress;
    const ahead = this.#ahead(progress);
    const room = (this.#stream.columns || 80) - titles[stage].length - ahead.length - 34;
    const payload = { ahead: ahead && `· ${ahead}`, doing: room > 10 ? shorten(doing, room) : '' };
    this.#bars ??= new MultiBar(
      { barsize: 16, hideCursor: true, clearOnComplete: true, stream: this.#stream },
      Presets.shades_classic,
    );
    const format = `${titles[stage]} {bar} {value}/{total} {ahead} {doing}`;
    this.#bar ??= this.#bars.create(total, done, payload, { format });
    this.#bar.setTotal(total);
    this.#bar.update(done, payload);
    this.#list(progress.worst ?? []);
  }

  #list(worst: readonly WastefulImage[]): void {
    worst.forEach((image, at) => {
      const line = this.#lineOf(image);
      if (!this.#lines[at])
        this.#lines.push(this.#bars!.create(1, 0, { line }, { format: '  {line}' }));
      else this.#lines[at].update(0, { line });
    });
  }

  /** `/assets/img/header.jpg is 238 kB, 101 kB more than needed so far` */
  #lineOf({ url, bytes, needed, isEstimate }: WastefulImage): string {
    const waste = `${isEstimate ? 'about ' : ''}${formatBytes(bytes - needed)}`;
    const words = ` is ${formatBytes(bytes)}, ${waste} more than any page needed so far`;
    const room = (this.#stream.columns || 80) - words.length - 4;
    const name = isInDocument(url) ? 'an image in a document' : pathOf(url);
    return `${shorten(name, Math.max(12, room))}${words}`;
  }

  #write(progress: Progress): void {
    const { stage, done, total, doing } = progress;
    const now = performance.now();
    if (done !== total && stage === this.#stage && now - this.#lastLine < lineInterval) return;
    this.#lastLine = now;
    const parts = [`${titles[stage]} ${done}/${total}`, this.#ahead(progress)].filter(Boolean);
    const what = doing ? `: ${shorten(doing, 100)}` : '';
    this.#stream.write(`${parts.join(' · ')}${what}\n`);
  }
}

/** A time that is guessed: no more exact than it can be. */
function inWords(seconds: number): string {
  if (seconds < 20) return `${Math.round(seconds)} s`;
  if (seconds < 90) return `${5 * Math.round(seconds / 5)} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 120 ? `${minutes} min` : `${(minutes / 60).toFixed(1)} h`;
}
