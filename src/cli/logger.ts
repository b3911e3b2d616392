import { pino } from 'pino';
import type { Logger } from 'pino';
import pretty from 'pino-pretty';

/** The logger; loaded when there is something to write. */
export function logger(level: string, stderr: NodeJS.WritableStream): Logger {
  const stream = pretty({
    destination: stderr,
    colorize: process.stderr.isTTY && !process.env['NO_COLOR'],
    ignore: 'pid,hostname',
    translateTime: 'SYS:HH:MM:ss.l',
  });
  return pino({ level, base: null }, stream);
}
