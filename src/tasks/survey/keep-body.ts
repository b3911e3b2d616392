import type { KeepBody } from '../../browser/network/bodies.js';
import { contentHashOf } from '../../images/hash.js';
import type { Workspace } from '../../store/workspace.js';
import type { TextWork } from './text-work.js';

/** What images are read with. */
export const loadImageReader = () => import('../../images/facts.js');

/** Stores a body and its facts, each content once, and returns its content hash. */
export function bodyKeeper(workspace: Workspace, noBodies: boolean, texts: TextWork): KeepBody {
  return async (body, declaredType) => {
    const contentHash = contentHashOf(body);
    if (!noBodies) await workspace.bodies.keep(contentHash, body);
    if (/svg/.test(declaredType)) texts.examineVector(contentHash, body);
    if (!workspace.images.has(contentHash)) {
      const { readImageFacts } = await loadImageReader();
      workspace.images.add(await readImageFacts(body, declaredType));
    }
    return contentHash;
  };
}
