import { homedir, tmpdir } from 'node:os';
import { join } from 'node:path';

/** The cache folder: `ZEALOUS_LYNX_CACHE`, or the system's usual place. */
export function cacheFolder(environment: NodeJS.ProcessEnv = process.env): string {
  const named = environment['ZEALOUS_LYNX_CACHE'];
  if (named) return named;
  const base =
    environment['XDG_CACHE_HOME'] ??
    environment['LOCALAPPDATA'] ??
    (homedir() ? join(homedir(), '.cache') : tmpdir());
  return join(base, 'zealous-lynx');
}

/** The folder of code that was compiled in an earlier run. */
export function codeFolder(): string {
  return join(cacheFolder(), 'code');
}
