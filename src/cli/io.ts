import picocolors from 'picocolors';
import { chooseForms, writeForms } from './forms/form.js';
import type { Forms } from './forms/form.js';
import { inPlainCharacters, showsAllCharacters } from '../output/terminal/plain-characters.js';
import type { Screen } from '../output/terminal/style.js';
import type { TaskOptions } from '../tasks/progress.js';
import type { Log } from './log.js';
import { columnsOf } from './streams.js';
import type { OutputStream, Streams } from './streams.js';
import { isFirstTelling } from './told-once.js';
import { ProgressLine } from './progress-line.js';

/** The input and output of a command. */
export interface Io {
  readonly screen: Screen;
  readonly log: Log;
  readonly task: Required<TaskOptions>;
  /** Shows a result in the forms requested: pictures into files, one form on stdout. */
  readonly show: <View>(
    forms: Forms<View>,
    view: View,
    settings: Readonly<Record<string, unknown>>,
  ) => Promise<void>;
  /** Tells people something on stderr while work goes on, unless they asked for quiet. */
  readonly tell: (draw: (screen: Screen) => string) => void;
  /** Prints text for people on stdout, never together with a JSON document. */
  readonly say: (text: string) => void;
}

/** Terminals narrower than this are drawn for as if they were this wide. */
const leastWidth = 40;

export function openIo(
  log: Log,
  json: boolean,
  quiet: boolean,
  { stdout, stderr }: Streams,
): Io & { close(): void } {
  const progress = new ProgressLine(stderr, quiet);
  const stop = new AbortController();
  const told = new Set<string>();
  const onSignal = () => {
    if (stop.signal.aborted) process.exit(130);
    progress.clear();
    stderr.write('Stopping; what is done is kept. Press Ctrl-C again to stop at once.\n');
    stop.abort();
  };
  process.on('SIGINT', onSignal);
  process.on('SIGTERM', onSignal);
  process.on('SIGHUP', onSignal);
  const all = showsAllCharacters(process.env);
  const forPeople = (text: string) => (all ? text : inPlainCharacters(text));
  const screenOf = (stream: OutputStream): Screen => ({
    width: Math.max(leastWidth, columnsOf(stream) ?? 120),
    colour: picocolors.isColorSupported && stream.isTTY === true && !process.env['NO_COLOR'],
  });
  const screen = screenOf(stdout);
  return {
    screen,
    log,
    task: {
      signal: stop.signal,
      onProgress: (event) => {
        log.debug(event, event.stage);
        progress.show(event);
      },
      onTrace: (message, details) => log.debug(details, message),
      onNotice: (words, key) => {
        if (!told.has(key) && isFirstTelling(key)) log.warn(words);
        told.add(key);
      },
    },
    show: async (forms, view, settings) => {
      const chosen = chooseForms(forms, settings);
      await writeForms(view, chosen);
      const print = await chosen.print.print();
      const drawn = print(view, screen);
      const text = chosen.print === forms.text ? forPeople(drawn) : drawn;
      progress.clear();
      stdout.write(`${text}\n`);
    },
    tell: (draw) => {
      if (quiet) return;
      progress.clear();
      stderr.write(`${forPeople(draw(screenOf(stderr)))}\n`);
    },
    say: (text) => {
      progress.clear();
      if (!json) stdout.write(`${forPeople(text)}\n`);
    },
    close: () => {
      progress.clear();
      process.off('SIGINT', onSignal);
      process.off('SIGTERM', onSignal);
      process.off('SIGHUP', onSignal);
    },
  };
}
