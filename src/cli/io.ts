import picocolors from 'picocolors';
import type { Screen } from '../output/terminal/style.js';
import type { TaskOptions } from '../tasks/progress.js';
import type { Log } from './log.js';
import { ProgressLine } from './progress-line.js';

/** What a command talks to the world with. */
export interface Io {
  readonly screen: Screen;
  readonly log: Log;
  readonly task: Required<TaskOptions>;
  /** Prints a result on stdout, as text or, where it was asked for, as one JSON document. */
  readonly print: (text: () => string, document: () => unknown) => void;
  /** Prints text for people on stdout, never together with a JSON document. */
  readonly say: (text: string) => void;
}

/** Terminals narrower than this are drawn for as if they were this wide. */
const leastWidth = 80;

export function openIo(log: Log, json: boolean, quiet: boolean): Io & { close(): void } {
  const progress = new ProgressLine(process.stderr, quiet);
  const stop = new AbortController();
  const onSignal = () => {
    if (stop.signal.aborted) process.exit(130);
    progress.clear();
    process.stderr.write('Stopping; what is done is kept. Once more to stop at once.\n');
    stop.abort();
  };
  process.on('SIGINT', onSignal);
  process.on('SIGTERM', onSignal);
  const width = process.stdout.columns || Number(process.env['COLUMNS']) || 120;
  return {
    screen: {
      width: Math.max(leastWidth, width),
      colour: picocolors.isColorSupported && process.stdout.isTTY && !process.env['NO_COLOR'],
    },
    log,
    task: {
      signal: stop.signal,
      onProgress: (event) => {
        log.debug(event, event.stage);
        progress.show(event);
      },
    },
    print: (text, document) => {
      progress.clear();
      process.stdout.write(json ? `${JSON.stringify(document(), null, 2)}\n` : `${text()}\n`);
    },
    say: (text) => {
      progress.clear();
      if (!json) process.stdout.write(`${text}\n`);
    },
    close: () => {
      progress.clear();
      process.off('SIGINT', onSignal);
      process.off('SIGTERM', onSignal);
    },
  };
}
