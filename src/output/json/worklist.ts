import type { WorkItem } from '../../core/refit/work/work-item.js';
import { checkOf } from '../words/work-item.js';

/** A work list as the document `zealous-lynx.worklist/1`, the largest saving first. */
export function worklistDocument(items: readonly WorkItem[]) {
  return {
    format: 'zealous-lynx.worklist/1',
    items: items.map((item) => ({ ...item, check: checkOf(item) })),
  };
}
