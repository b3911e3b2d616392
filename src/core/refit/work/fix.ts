import { groupBy } from '../../base/group-by.js';
import { findingKind } from '../../findings/index.js';
import { whereOf, whereWords } from '../../findings/where.js';
import type { Where } from '../../findings/where.js';
import { isVector } from '../../survey/image-file.js';
import type { RankedImage } from '../../rank/ranked-image.js';
import { sizesText } from '../../slots/sizes-text.js';
import { formatSize } from '../../base/size.js';
import { mendedSizes, offersOwnWidths } from '../plan/own-widths.js';
import { widestCurve } from '../plan/widest-curve.js';
import { chosenAttempt } from '../../survey/encoded.js';
import type { CurvePiece } from '../../slots/slot-curve.js';
import { planWidths, usualSlack } from '../../slots/width-plan.js';
import type { WidthPlan } from '../../slots/width-plan.js';

/** What to do about one image file. */
export interface Fix {
  /** In words, one step each, the one that saves the most first. */
  readonly steps: readonly string[];
  /** The widths to offer it in. */
  readonly plan: WidthPlan;
  /** The value that `sizes` should have; `null` without a slot curve. */
  readonly sizes: string | null;
  /** The slot that decides: the widest; `null` where none was swept. */
  readonly curve: readonly CurvePiece[] | null;
}

/** Below this a step is not worth a word. */
const leastBytes = 200;

/** @param most widths that a picture is offered in */
export function fixOf(image: RankedImage, most: number): Fix {
  const curve = widestCurve(image.placed);
  const sizes = curve && sizesText(curve);
  const plan = planWidths(image.demands, most, usualSlack);
  const steps = image.placed.some(offersOwnWidths)
    ? ownWidthsSteps(image)
    : stepsOf(image, plan, sizes);
  return { steps: [...steps, ...findingSteps(image)], plan, sizes, curve };
}

function stepsOf(image: RankedImage, { widths }: WidthPlan, sizes: string | null): string[] {
  const { file, waste, encoded, need, thirdParty } = image;
  if (!waste || waste.wasteBytes < leastBytes) return [];
  const who = thirdParty ? 'ask the third party: ' : '';
  const steps: string[] = [];
  if (waste.causes.neverShown > 0) steps.push(`${who}do not send it: no page shows it in any view`);
  if (waste.causes.duplicate > 0)
    steps.push(`${who}link to one of its ${image.urls.length} addresses everywhere`);
  if (isVector(file) && waste.causes.metadata > 0)
    steps.push(`${who}remove what nobody sees of it`);
  if (isVector(file) && waste.causes.wire > 0)
    steps.push(`${who}send it compressed (content-encoding)`);
  if (encoded && need && waste.neededBytes < file.bytes && waste.causes.neverShown === 0) {
    const from = file.intrinsic ? formatSize(file.intrinsic) : '';
    const quality = chosenAttempt(encoded)?.quality;
    const atQuality = quality ? `, quality ${quality}` : '';
    const smaller = formatSize(need) === from ? from : `${formatSize(need)} instead of ${from}`;
    steps.push(`${who}send it as ${encoded.format}${atQuality}, ${smaller}`);
  }
  if (widths.length > 1 && sizes) {
    const offer = `${who}offer it in widths of ${widths.join(', ')} px (srcset)`;
    const slots = sizesBySlot(image);
    if (slots.length < 2) steps.push(`${offer} with sizes="${sizes}"`);
    else steps.push(offer, ...slots.map(({ text, where }) => `write sizes="${text}": ${where}`));
  }
  return steps;
}

/** The most slots whose `sizes` are listed. */
const mostSlots = 6;

/** The value that `sizes` should have in each slot that differs from the others, and where that is. */
function sizesBySlot({ placed }: RankedImage): { text: string; where: string }[] {
  const swept = placed.flatMap((placement) => {
    const curve = placement.shown && placement.kind === 'img' ? placement.curve : null;
    return curve ? [{ text: sizesText(curve), placement }] : [];
  });
  return [...groupBy(swept, ({ text }) => text)].slice(0, mostSlots).map(([text, alike]) => ({
    text,
    where: whereWords(whereOf(alike.map(({ placement }) => placement))),
  }));
}

/** What findings ask for besides another file: attributes, names, headers. */
function findingSteps({ findings }: RankedImage): string[] {
  return findings.flatMap(({ id, data }) => {
    const kind = findingKind(id);
    if (!kind?.isWork) return [];
    const fix = kind.fix.replace(/\.$/, '');
    const step = kind.step?.(data) ?? fix.charAt(0).toLowerCase() + fix.slice(1);
    const { where } = data as { readonly where?: Where };
    return [where ? `${step}: ${whereWords(where)}` : step];
  });
}

/** For an image that elements choose among widths of the site: it keeps its width. */
function ownWidthsSteps({ placed, waste, file, encoded, thirdParty }: RankedImage): string[] {
  if (!waste || waste.wasteBytes < leastBytes) return [];
  const who = thirdParty ? 'ask the third party: ' : '';
  const sizes = mendedSizes(placed, null);
  const width = file.intrinsic ? `${file.intrinsic.width} px` : '';
  return [
    ...(sizes === null ? [] : [`${who}write sizes="${sizes}": the site offers narrower files`]),
    ...(encoded && waste.neededBytes < file.bytes
      ? [`${who}encode it again at its own width (${width}), as ${encoded.format} where it is read`]
      : []),
  ];
}
