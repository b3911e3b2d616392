import { area } from '../../base/size.js';
import { grouped } from '../../base/thousands.js';
import type { ImageCheck } from './finding.js';

/** Nothing is said of files this small, whatever they cover. */
const leastBytes = 10_000;

/** More bytes than the share of the viewport that the picture covers allows for. */
export const ceilingArea: ImageCheck = ({ file, placements, views, policy }) => {
  if (file.bytes < leastBytes) return undefined;
  let worst = { excess: 1, words: '' };
  for (const { shown, slot, view } of placements) {
    const viewport = views.get(view);
    if (!shown || !viewport) continue;
    const share = Math.min(1, area(slot) / area(viewport));
    const ceiling = Math.max(leastBytes, share * policy.ceilings.area);
    const excess = file.bytes / ceiling;
    if (excess <= worst.excess) continue;
    const words = `${Math.round(share * 100)} % of the screen in ${view}, for which ${grouped(ceiling)} bytes are enough by the rule of thumb; it has ${grouped(file.bytes)}`;
    worst = { excess, words };
  }
  if (!worst.words) return undefined;
  return { id: 'ceiling-area', message: `covers ${worst.words}` };
};
