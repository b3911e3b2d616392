import { area } from '../../base/size.js';
import { imageFinding } from './image-case.js';

/** The size below which files have no finding, whatever they cover. */
const leastBytes = 10_000;

/** More bytes than the share of the viewport that the picture covers allows for. */
export const ceilingArea = imageFinding({
  id: 'ceiling-area',
  title: 'heavy for the area it covers',
  doer: 'content',
  fix: 'Send it at its need and in a better format; crop it or simplify it if that is not enough.',
  isWork: false,
  docs: {
    meaning: 'A file has more bytes than 200 kB × the share of the viewport that it covers.',
    why: 'Bytes that no visitor can see the use of.',
    computed:
      'By its bytes and its largest slot. The ceiling is a rule of thumb: policy.ceilings sets it.',
    ignore: 'Where the picture is what people came for.',
  },
  check: ({ file, placements, views, policy }) => {
    if (file.bytes < leastBytes) return undefined;
    let worst: { view: string; share: number; ceiling: number; bytes: number } | undefined;
    let most = 1;
    for (const { shown, slot, view } of placements) {
      const viewport = views.get(view);
      if (!shown || !viewport) continue;
      const share = Math.min(1, area(slot) / area(viewport));
      const ceiling = Math.round(Math.max(leastBytes, share * policy.ceilings.area));
      if (file.bytes / ceiling <= most) continue;
      most = file.bytes / ceiling;
      worst = { view, share, ceiling, bytes: file.bytes };
    }
    return worst;
  },
  describe: ({ view, share, ceiling, bytes }, { bytes: inBytes }) =>
    `covers ${Math.round(share * 100)} % of the screen in ${view}, where the rule of thumb allows ${inBytes(ceiling)}; it has ${inBytes(bytes)}`,
});
