import { join } from 'node:path';
import type { Session } from '../../core/load/session.js';
import type { Workspace } from '../../store/workspace.js';

/** The file with the picture of a session's page at the end of its first cold load. */
export function pictureFile({ folder }: Pick<Workspace, 'folder'>, { id }: Session): string {
  return join(folder, 'pictures', `session-${id}.png`);
}
