import { LynxError, messageOf } from '../core/base/errors.js';
import { plainText } from '../output/words/plain-text.js';

/** Turns an error into one line on stderr and its exit status; the stack is shown only on request. */
export function report(error: unknown, verbose: boolean, stderr: NodeJS.WritableStream): number {
  const expected = error instanceof LynxError;
  const hint = expected && error.hint ? ` – ${error.hint}` : '';
  const code = expected ? error.code : 'UNEXPECTED';
  const advice = expected ? hint : ' – this is a bug: run again with --verbose and report it';
  stderr.write(`zealous-lynx: ${plainText(messageOf(error) + advice, 1_000)} [${code}]\n`);
  if (verbose && error instanceof Error) stderr.write(`${error.stack ?? ''}\n`);
  return expected ? error.exitStatus : 3;
}
