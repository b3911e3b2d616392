import type { Logger } from 'pino';

/** The messages on stderr besides results and errors. */
export type Log = Pick<Logger, 'debug' | 'warn'>;

/** The log on stderr: warnings by default, everything when `--verbose`, nothing of it when `--quiet`. */
export async function openLog(
  verbose: boolean,
  quiet: boolean,
  stderr: NodeJS.WritableStream,
): Promise<Log> {
  if (verbose) return (await import('./logger.js')).logger('debug', stderr);
  // Most calls have nothing to log, and to load the logger takes longer than some of them.
  const warn = (...words: Parameters<Logger['warn']>) =>
    void import('./logger.js').then(({ logger }) => logger('warn', stderr).warn(...words));
  return { debug: () => {}, warn: quiet ? () => {} : warn };
}
