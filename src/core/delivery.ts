import { isInDocument } from './address.js';
import type { Allowance, Allowances } from './allowance.js';
import type { ImageFile, ImageResponse } from './image-file.js';
import { isVector } from './image-file.js';
import { needFactor, pixelsAt } from './need.js';
import type { Placement } from './placement.js';
import type { Policy } from './policy.js';
import type { Sizing } from './rendered-size.js';
import { area } from './size.js';
import type { Size } from './size.js';
import type { Encoded } from './survey.js';
import type { View } from './view.js';
import { splitWaste, stepsAt } from './waste.js';
import type { Waste, WasteSteps } from './waste.js';

/** What one image file was to one visit: what was sent, and what would have done. */
export interface Delivery {
  readonly page: string;
  readonly view: string;
  /** The placement that decides the need; `null` where none shows the file. */
  readonly deciding: Placement | null;
  /** The need of that visit; `null` for vectors, and where nothing is shown. */
  readonly need: Size | null;
  /** `null` where it cannot be judged: a file that cannot be read, or that no element of the page has. */
  readonly waste: Waste | null;
  readonly sentBytes: number;
  readonly thirdParty: boolean;
}

/** What has to be known to judge a delivery. */
export interface Judgement {
  readonly policy: Policy;
  readonly allowances: Allowances;
  readonly views: ReadonlyMap<string, View>;
  readonly isForeign: (response: ImageResponse) => boolean;
}

/** What one visit has of one file. */
export interface Sent {
  readonly page: string;
  readonly view: string;
  readonly placements: readonly Placement[];
  readonly responses: readonly ImageResponse[];
}

/**
 * Judges one file in one visit: its need there, and the split of what was sent.
 *
 * @param encoded the file at its largest need over all visits, where there is one
 */
export function judgeDelivery(
  file: ImageFile,
  encoded: Encoded | undefined,
  sent: Sent,
  judgement: Judgement,
): Delivery {
  const { page, view, placements, responses } = sent;
  const problem = file.problem ?? encoded?.problem ?? null;
  const shown = placements.some((placement) => placement.shown);
  const { deciding, factor, exempt } = decidingOf(file, sent, judgement);
  const need = file.intrinsic && deciding ? pixelsAt(file.intrinsic, factor) : null;
  const judged = placements.length > 0 && (problem === null || !shown);
  const bytes = sentOnce(file, encoded, responses);
  const times = timesSent(responses.map(({ url }) => url));
  const waste = judged
    ? splitWaste(bytes, times, shown, exempt ? undefined : stepsFor(file, encoded, need))
    : null;
  const thirdParty = responses.length > 0 && responses.every(judgement.isForeign);
  return { page, view, deciding, need, waste, sentBytes: bytes * times, thirdParty };
}

/** The placement whose need is the largest, and whether a rule lets the file be as it is. */
function decidingOf(
  { intrinsic }: ImageFile,
  { view, placements }: Sent,
  { policy, allowances, views }: Judgement,
): { deciding: Placement | null; factor: number; exempt: boolean } {
  let deciding: Placement | null = null;
  let most = 0;
  let exempt = false;
  const density = views.get(view)?.density ?? 1;
  for (const placement of placements) {
    if (!placement.shown) continue;
    const allowance = allowances.of(placement);
    exempt ||= allowance.exempt;
    const factor = intrinsic
      ? needFactor({ ...sizingOf(placement), density }, intrinsic, policy, allowance)
      : 1;
    if (deciding && factor <= most) continue;
    deciding = placement;
    most = factor;
  }
  return { deciding, factor: most, exempt };
}

/** What decides how large a placement's picture is drawn, and nothing else of it. */
export function sizingOf({ slot, fit, drawn, naturalDensity }: Placement): Sizing {
  return { slot, fit, drawn, naturalDensity };
}

/** The need of one placement; `null` where it has none. */
export function needOfPlacement(
  placement: Placement,
  { intrinsic }: Pick<ImageFile, 'intrinsic'>,
  { policy, views }: Pick<Judgement, 'policy' | 'views'>,
  allowance: Allowance,
): Size | null {
  if (!intrinsic || !placement.shown) return null;
  const shown = { ...sizingOf(placement), density: views.get(placement.view)?.density ?? 1 };
  return pixelsAt(intrinsic, needFactor(shown, intrinsic, policy, allowance));
}

/** How often the network carries a file: once for each address, of which `blob:` is none of its own. */
export function timesSent(urls: readonly string[]): number {
  if (urls.length < 2) return 1;
  return Math.max(1, new Set(urls.filter((url) => !isInDocument(url))).size);
}

/** Whether all of a file's answers were compressed on their way. */
export function isCompressed(responses: readonly Pick<ImageResponse, 'headers'>[]): boolean {
  const encodings = responses.map(({ headers }) => headers['content-encoding'] ?? 'identity');
  return encodings.length > 0 && encodings.every((encoding) => encoding !== 'identity');
}

/** Bytes of a file each time that it is sent; a text that is compressed on its way counts as what it is then. */
export function sentOnce(
  file: ImageFile,
  encoded: Encoded | undefined,
  responses: readonly Pick<ImageResponse, 'headers'>[],
): number {
  if (!isVector(file) || !encoded || encoded.problem !== null) return file.bytes;
  return isCompressed(responses) ? Math.min(file.bytes, encoded.steps.best) : file.bytes;
}

/** The steps from a file to what is needed of it at one need; `undefined` where there is no encode. */
export function stepsFor(
  { intrinsic }: ImageFile,
  encoded: Encoded | undefined,
  need: Size | null,
): WasteSteps | undefined {
  if (!encoded || encoded.problem !== null) return undefined;
  if (!intrinsic || !need || !encoded.need)
    return { ...encoded.steps, pixelRatio: 1, text: encoded.format === 'svg' };
  const [whole, most, here] = [intrinsic, encoded.need, need].map(area);
  return stepsAt(encoded.steps, whole!, most!, Math.min(most!, here!));
}
