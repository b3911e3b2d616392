import { findingsOf } from './findings/index.js';
import type { Finding } from './findings/finding.js';
import { groupBy } from './group-by.js';
import type { ImageFile, ImageResponse } from './image-file.js';
import { needOf } from './need.js';
import type { Placement } from './placement.js';
import type { Policy } from './policy.js';
import { renderedSize } from './rendered-size.js';
import type { Size } from './size.js';
import type { Encoded, SurveyFacts } from './survey.js';
import { addCauses, splitWaste } from './waste.js';
import type { WasteByCause } from './waste.js';

/** A placement as it is told: with what it draws and what would be enough. */
export interface RankedPlacement extends Placement {
  readonly rendered: Size;
  /** `null` for files without pixels, and for placements that show nothing. */
  readonly need: Size | null;
}

/** One image file with its waste; sizes in pixels, bytes as integers. */
export interface RankedImage {
  readonly url: string;
  readonly urls: readonly string[];
  readonly contentHash: string;
  readonly mediaType: string;
  readonly intrinsic: Size | null;
  readonly bytes: number;
  readonly transferBytes: number;
  readonly need: Size | null;
  /** `null` when nothing can be said because the file cannot be read. */
  readonly neededBytes: number | null;
  readonly wasteBytes: number | null;
  readonly causes: WasteByCause | null;
  /** `estimated` where there is no encode behind it: vectors stay as they are. */
  readonly basis: 'encoded' | 'estimated';
  /** On how many pages it is shown. */
  readonly pages: number;
  readonly thirdParty: boolean;
  readonly findings: readonly Finding[];
  readonly placements: readonly RankedPlacement[];
}

export interface RankTotals {
  readonly sentBytes: number;
  readonly neededBytes: number;
  readonly wasteBytes: number;
  readonly wasteByCause: WasteByCause;
  /** Bytes of files that cannot be read, in none of the other totals. */
  readonly unknownBytes: number;
}

export interface Ranking {
  readonly totals: RankTotals;
  /** Files with the most waste first; those that cannot be judged last. */
  readonly images: readonly RankedImage[];
  /** Image files that were fetched, but shown by no element that is measured. */
  readonly unplaced: number;
}

/**
 * Ranks the image files of a survey by wasted bytes. Every file counts once, however many pages show
 * it; the totals are the sums of the rows.
 */
export function rankImages(facts: SurveyFacts, policy: Policy): Ranking {
  const responses = groupBy(facts.responses, ({ contentHash }) => contentHash);
  const placements = groupBy(facts.placements, ({ contentHash }) => contentHash ?? '');
  const encoded = new Map(facts.encoded.map((result) => [result.contentHash, result]));
  const densities = densitiesOf(facts);
  const images: RankedImage[] = [];
  let unplaced = 0;
  for (const file of facts.files) {
    const shownIn = placements.get(file.contentHash);
    if (!shownIn) {
      unplaced++;
      continue;
    }
    const sent = responses.get(file.contentHash) ?? [];
    const told = shownIn.map((placement) => tell(placement, file, densities, policy));
    images.push(rankOne(file, sent, told, encoded.get(file.contentHash)));
  }
  images.sort(byWaste);
  return { totals: totalsOf(images), images, unplaced };
}

/** Device pixels to a CSS pixel, by the name of the view. */
function densitiesOf({ head }: SurveyFacts): ReadonlyMap<string, number> {
  return new Map(head.views.map(({ name, density }) => [name, density]));
}

/** What a survey's placements need of each file that has pixels, by content hash. */
export function needsByFile(facts: SurveyFacts, policy: Policy): Map<string, Size[]> {
  const files = new Map(facts.files.map((file) => [file.contentHash, file]));
  const densities = densitiesOf(facts);
  const needs = new Map<string, Size[]>();
  for (const placement of facts.placements) {
    const file = files.get(placement.contentHash ?? '');
    const need = file && tell(placement, file, densities, policy).need;
    if (!need) continue;
    const known = needs.get(file.contentHash);
    if (known) known.push(need);
    else needs.set(file.contentHash, [need]);
  }
  return needs;
}

function tell(
  placement: Placement,
  { intrinsic }: ImageFile,
  densities: ReadonlyMap<string, number>,
  policy: Policy,
): RankedPlacement {
  const density = densities.get(placement.view) ?? 1;
  const needed = intrinsic !== null && placement.shown;
  return {
    ...placement,
    rendered: renderedSize(placement.slot, placement.fit, intrinsic ?? undefined),
    need: needed ? needOf({ ...placement, density }, intrinsic, policy) : null,
  };
}

function rankOne(
  file: ImageFile,
  responses: readonly ImageResponse[],
  placements: readonly RankedPlacement[],
  encoded: Encoded | undefined,
): RankedImage {
  const problem = file.problem ?? encoded?.problem ?? null;
  const urls = [...new Set(responses.map(({ url }) => url))].sort();
  const shown = placements.some((placement) => placement.shown);
  const waste =
    problem === null || !shown
      ? splitWaste(file.bytes, urls.length, shown, encoded?.steps)
      : undefined;
  return {
    url: urls[0] ?? placements[0]!.url,
    urls,
    contentHash: file.contentHash,
    mediaType: file.mediaType,
    intrinsic: file.intrinsic,
    bytes: file.bytes,
    transferBytes: Math.max(0, ...responses.map(({ transferBytes }) => transferBytes)),
    need: encoded?.need ?? null,
    neededBytes: waste?.neededBytes ?? null,
    wasteBytes: waste?.wasteBytes ?? null,
    causes: waste?.causes ?? null,
    basis: encoded && problem === null ? 'encoded' : 'estimated',
    pages: new Set(placements.map(({ page }) => page)).size,
    thirdParty: responses.some(({ thirdParty }) => thirdParty),
    findings: findingsOf({ file: { ...file, problem }, responses, placements }),
    placements,
  };
}

function byWaste(a: RankedImage, b: RankedImage): number {
  return (b.wasteBytes ?? -1) - (a.wasteBytes ?? -1) || (a.url < b.url ? -1 : 1);
}

function totalsOf(images: readonly RankedImage[]): RankTotals {
  let neededBytes = 0;
  let wasteBytes = 0;
  let unknownBytes = 0;
  for (const image of images) {
    if (image.wasteBytes === null) unknownBytes += image.bytes * image.urls.length;
    neededBytes += image.neededBytes ?? 0;
    wasteBytes += image.wasteBytes ?? 0;
  }
  const wasteByCause = addCauses(images.flatMap(({ causes }) => causes ?? []));
  return {
    sentBytes: neededBytes + wasteBytes,
    neededBytes,
    wasteBytes,
    wasteByCause,
    unknownBytes,
  };
}
