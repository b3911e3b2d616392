import { readFile, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { messageOf, NotFoundError, UsageError } from '../../core/base/errors.js';
import { readHar } from '../../core/load/har-reading.js';
import type { HarReading } from '../../core/load/har-reading.js';
import type { Session } from '../../core/load/session.js';
import { isThirdParty } from '../../crawl/third-party.js';

/** The sessions of a HAR file, one a page, and what was wrong with the file. */
export interface HarSessions {
  readonly sessions: readonly Session[];
  readonly defects: HarReading['defects'];
}

/** The largest file that is read. */
const maxBytes = 500_000_000;

/**
 * Reads a HAR file as sessions of one load each.
 *
 * @throws NotFoundError when there is no such file; UsageError when it is no HAR, saying what is wrong and where.
 */
export async function readHarFile(file: string): Promise<HarSessions> {
  const reading = await readHarPages(file);
  const sessions = reading.pages.map(({ page, conditions, run }, index) => ({
    id: index + 1,
    label: basename(file),
    page,
    startedAt: run.startedAt,
    conditions,
    runs: [run],
  }));
  return { sessions, defects: reading.defects };
}

/**
 * Reads a HAR file with all that it holds of its pages.
 *
 * @throws as `readHarFile`.
 */
export async function readHarPages(file: string): Promise<HarReading> {
  const reading = interpret(file, parse(file, await textOf(file)));
  if (reading.pages.length === 0) throw wrong(file, 'there are no requests in it');
  return reading;
}

async function textOf(file: string): Promise<string> {
  const found = await stat(file).catch(() => undefined);
  if (!found?.isFile()) throw new NotFoundError(`there is no file ${file}`);
  if (found.size > maxBytes) throw wrong(file, `it is larger than ${maxBytes / 1e6} MB`);
  return (await readFile(file, 'utf8')).replace(/^\uFEFF/, '');
}

function parse(file: string, text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    const position = positionOf(String(error), text);
    const before = text.slice(0, position).split('\n');
    const place = `line ${before.length}, column ${before.at(-1)!.length + 1}`;
    const cut = position >= text.trimEnd().length;
    throw wrong(file, cut ? `it ends too early, at ${place}` : `it is not JSON from ${place}`);
  }
}

/** The number of characters before the wrong one in the parser's message, if it does not give the position. */
const toldBefore = 10;

/** The position of the parser's error; the end of the text if it is only cut off. */
function positionOf(message: string, text: string): number {
  const told = /position (\d+)/.exec(message)?.[1];
  if (told !== undefined) return Number(told);
  const [, token = '', dots, part = ''] =
    /token '?(.+?)'?, (\.\.\.)?"([^]*?)"(?:\.\.\.)? is not valid/.exec(message) ?? [];
  const at = part === '' ? -1 : text.indexOf(part);
  if (at < 0) return text.length;
  return at + (dots ? toldBefore : Math.max(0, part.indexOf(token)));
}

function interpret(file: string, document: unknown): HarReading {
  try {
    return readHar(document, isThirdParty);
  } catch (error) {
    throw wrong(file, messageOf(error));
  }
}

function wrong(file: string, words: string): UsageError {
  return new UsageError(`${file} cannot be read as a HAR file: ${words}`, {
    hint: 'save it again from the browser or the tool that it came from, as HAR 1.2',
  });
}
