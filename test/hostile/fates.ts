import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** What becomes of an attack: nothing, its page alone is cut short, or it is refused in words. */
export type Fate = 'held' | 'bounded' | 'told';

/** Where the fates of a run are gathered, for the table at its end. */
export const fatesFile = join(
  tmpdir(),
  `lynx-attacks-${process.env['LYNX_ATTACKS'] ?? 'apart'}.txt`,
);
