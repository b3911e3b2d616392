import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/**
 * Gives back what is not used any more. On a machine with much memory the engine lets garbage pile up to
 * several times of what is in use; in a crawl that memory is the renderers'.
 */
export function collectGarbage(): void {
  collect ??= exposed();
  collect();
}

let collect: (() => void) | undefined;

function exposed(): () => void {
  setFlagsFromString('--expose-gc');
  return runInNewContext('gc') as () => void;
}
