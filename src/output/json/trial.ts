import type { TriedPageView, TrialView } from '../views/trial.js';
import { comparedPageDocument } from './compare.js';

/** Pages as they are and with fixes as the document `zealous-lynx.trial/1`. */
export function trialDocument({ pages }: Pick<TrialView, 'pages'>) {
  return { format: 'zealous-lynx.trial/1', pages: pages.map(pageDocument) };
}

function pageDocument(page: TriedPageView) {
  const { fixes, warm, recording, missing, unrecorded, alike, moved, unpaired } = page;
  return {
    page: page.before.page,
    recording,
    fixes: fixes.map(({ name, title, unit, changed, notes, alone, predicted }) => ({
      ...{ name, title, unit, changed, notes },
      alone: alone && {
        markers: alone.markers,
        requestCount: alone.requestCount,
        bytes: alone.bytes,
        bytesByType: alone.bytesByType,
      },
      predicted,
    })),
    ...comparedPageDocument(page),
    warm: warm && comparedPageDocument(warm),
    replay: { missing, unrecorded, alike },
    placements: {
      moved: moved.map(({ before, after }) => ({
        selector: before.selector,
        kind: before.kind,
        before: before.slot,
        after: after.slot,
      })),
      unpaired,
    },
  };
}
