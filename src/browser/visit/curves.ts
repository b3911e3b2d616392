import type { Channel } from '../chromium/channel.js';
import type { Breakpoints } from '../../core/slots/breakpoints.js';
import type { SlotCurve } from '../../core/slots/placement.js';
import type { View } from '../../core/visitors/view.js';
import type { ProbedPlacement } from '../in-page/probed.js';
import type { MeasuredDocument } from './frames.js';
import { sweep } from './sweep.js';

/** The slot curve of every placement, each element and kind once. */
export async function curvesOf(
  cdp: Channel,
  documents: readonly [MeasuredDocument, ...MeasuredDocument[]],
  placements: readonly ProbedPlacement[],
  view: View,
  breakpoints: Breakpoints,
): Promise<Omit<SlotCurve, 'page'>[]> {
  const [page, ...frames] = documents;
  const worlds = [page.world, ...frames.map(({ world }) => world)] as const;
  const pieces = await sweep(cdp, worlds, view, placements.length > 0, breakpoints);
  const curves = new Map<string, Omit<SlotCurve, 'page'>>();
  placements.forEach(({ kind, selector }, index) => {
    const key = `${kind} ${selector}`;
    const curve = pieces[index] ?? [];
    if (!curves.has(key) && curve.length > 0) curves.set(key, { kind, selector, pieces: curve });
  });
  return [...curves.values()];
}
