import type { Logger } from 'pino';

/** What is told on stderr besides results and errors. */
export type Log = Pick<Logger, 'debug' | 'warn'>;

/** The log on stderr: warnings by default, everything when `--verbose`, nothing of it when `--quiet`. */
export async function openLog(verbose: boolean, quiet: boolean): Promise<Log> {
  if (verbose) return logger('debug');
  // Most calls have nothing to log, and to load the logger takes longer than some of them.
  const warn = (...words: Parameters<Logger['warn']>) =>
    void logger('warn').then((log) => log.warn(...words));
  return { debug: () => {}, warn: quiet ? () => {} : warn };
}

async function logger(level: string): Promise<Logger> {
  const [{ pino }, { default: pretty }] = await Promise.all([
    import('pino'),
    import('pino-pretty'),
  ]);
  const stream = pretty({
    destination: 2,
    sync: true,
    colorize: process.stderr.isTTY && !process.env['NO_COLOR'],
    ignore: 'pid,hostname',
    translateTime: 'SYS:HH:MM:ss.l',
  });
  return pino({ level, base: null }, stream);
}
