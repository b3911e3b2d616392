import { pino } from 'pino';
import type { Logger } from 'pino';
import pretty from 'pino-pretty';

/** The log on stderr: warnings by default, everything when `--verbose`, errors when `--quiet`. */
export function openLog(verbose: boolean, quiet: boolean): Logger {
  const level = verbose ? 'debug' : quiet ? 'error' : 'warn';
  const stream = pretty({
    destination: 2,
    sync: true,
    colorize: process.stderr.isTTY && !process.env['NO_COLOR'],
    ignore: 'pid,hostname',
    translateTime: 'SYS:HH:MM:ss.l',
  });
  return pino({ level, base: null }, stream);
}
