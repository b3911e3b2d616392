import { join } from 'node:path';
import type { Session } from '../../core/load/session.js';
import type { Workspace } from '../../store/workspace.js';

/**
 * The file with the picture of a session's page at the end of a cold load.
 *
 * @param which the first picture, or the second, which tells what differs between two equal loads
 */
export function pictureFile(
  { folder }: Pick<Workspace, 'folder'>,
  { id }: Session,
  which: 1 | 2 = 1,
): string {
  return join(folder, 'pictures', `session-${id}${which === 1 ? '' : '-again'}.png`);
}
