import { LynxError, messageOf } from '../core/base/errors.js';
import { systemFailure } from './system-failure.js';
import { plainText } from '../output/words/plain-text.js';

/** Turns an error into one line on stderr and its exit status; the stack is shown only on request. */
export function report(error: unknown, verbose: boolean, stderr: NodeJS.WritableStream): number {
  const { words, code, status } = toldOf(error);
  stderr.write(`zealous-lynx: ${plainText(words, 1_000)} [${code}]\n`);
  if (verbose && error instanceof Error) stderr.write(`${error.stack ?? ''}\n`);
  return status;
}

function toldOf(error: unknown): { words: string; code: string; status: number } {
  const message = messageOf(error);
  if (error instanceof LynxError) {
    const hint = error.hint ? ` – ${error.hint}` : '';
    return { words: message + hint, code: error.code, status: error.exitStatus };
  }
  const failure = systemFailure(error);
  if (failure)
    return {
      words: `${failure.words} (${message}) – ${failure.hint}`,
      code: 'SYSTEM',
      status: 3,
    };
  const advice = ' – this is a bug: run again with --verbose and report it';
  return { words: message + advice, code: 'UNEXPECTED', status: 3 };
}
