import { isInDocument } from './address.js';
import { findingsOf } from './findings/index.js';
import type { Finding } from './findings/finding.js';
import { groupBy } from './group-by.js';
import type { ImageFile, ImageResponse } from './image-file.js';
import { largestNeed, needOf } from './need.js';
import type { Placement } from './placement.js';
import type { Policy } from './policy.js';
import { renderedSize } from './rendered-size.js';
import type { Size } from './size.js';
import type { CurvePiece } from './slot-curve.js';
import type { Encoded, SurveyFacts } from './survey.js';
import type { View } from './view.js';
import { addCauses, splitWaste } from './waste.js';
import type { WasteByCause } from './waste.js';

/** A placement as it is told: with what it draws and what would be enough. */
export interface RankedPlacement extends Placement {
  readonly rendered: Size;
  /** `null` for files without pixels, and for placements that show nothing. */
  readonly need: Size | null;
  /** How the slot follows the viewport; `null` where it was not swept (frames, broken-off visits). */
  readonly slotCurve: readonly CurvePiece[] | null;
}

/** How an address that carried an image file was answered. */
export type Answer = Pick<
  ImageResponse,
  'url' | 'status' | 'redirects' | 'declaredType' | 'protocol' | 'headers' | 'transferBytes'
>;

/** One image file with its waste; sizes in pixels, bytes as integers. */
export interface RankedImage {
  readonly url: string;
  readonly urls: readonly string[];
  /** How each of its addresses was answered, where it was first seen. */
  readonly answers: readonly Answer[];
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
  /** Image files that were fetched, but placed nowhere; they are among the images that cannot be judged. */
  readonly unplaced: number;
}

/**
 * Ranks the image files of a survey by wasted bytes. Every file counts once, however many pages show
 * it; the totals are the sums of the rows.
 */
export function rankImages(facts: SurveyFacts, policy: Policy): Ranking {
  const responses = groupBy(facts.responses, ({ contentHash }) => contentHash ?? '');
  const placements = groupBy(facts.placements, ({ contentHash }) => contentHash ?? '');
  const encoded = new Map(facts.encoded.map((result) => [result.contentHash, result]));
  const context = contextOf(facts, policy);
  const images = facts.files.map((file) =>
    rankOne(
      file,
      responses.get(file.contentHash) ?? [],
      (placements.get(file.contentHash) ?? []).map((placement) => tell(placement, file, context)),
      encoded.get(file.contentHash),
    ),
  );
  const unplaced = images.filter((image) => image.placements.length === 0).length;
  images.sort(byWaste);
  return { totals: totalsOf(images), images, unplaced };
}

/** What has to be known of a survey to tell one of its placements. */
interface Context {
  readonly policy: Policy;
  /** Device pixels to a CSS pixel, by the name of the view. */
  readonly densities: ReadonlyMap<string, number>;
  readonly curves: ReadonlyMap<string, readonly CurvePiece[]>;
}

function contextOf({ head, curves }: SurveyFacts, policy: Policy): Context {
  return {
    policy,
    densities: new Map(head.views.map(({ name, density }) => [name, density])),
    curves: new Map(curves.map((curve) => [curveKey(curve), curve.pieces])),
  };
}

function curveKey({ page, kind, selector }: Pick<Placement, 'page' | 'kind' | 'selector'>): string {
  return `${page}\n${kind}\n${selector}`;
}

/** The largest need of each file that has pixels and is shown, over its placements, by content hash. */
export function largestNeeds(
  placements: Iterable<Placement>,
  files: readonly ImageFile[],
  views: readonly View[],
  policy: Policy,
): Map<string, Size> {
  const byHash = new Map(files.map((file) => [file.contentHash, file]));
  const densities = new Map(views.map(({ name, density }) => [name, density]));
  const needs = new Map<string, Size>();
  for (const placement of placements) {
    const intrinsic = byHash.get(placement.contentHash ?? '')?.intrinsic;
    if (!intrinsic || !placement.shown) continue;
    const density = densities.get(placement.view) ?? 1;
    const need = needOf({ ...placement, density }, intrinsic, policy);
    const contentHash = placement.contentHash!;
    const known = needs.get(contentHash);
    needs.set(contentHash, known ? largestNeed([known, need])! : need);
  }
  return needs;
}

function tell(
  placement: Placement,
  { intrinsic }: ImageFile,
  { densities, curves, policy }: Context,
): RankedPlacement {
  const density = densities.get(placement.view) ?? 1;
  const rendered = renderedSize(placement, intrinsic ?? undefined);
  const needed = intrinsic !== null && placement.shown;
  // Where the picture makes its own box, the slot is what it draws.
  const slot = placement.slot.width === 0 && placement.fit === 'none' ? rendered : placement.slot;
  return {
    ...placement,
    slot,
    rendered,
    need: needed ? needOf({ ...placement, density }, intrinsic, policy) : null,
    slotCurve: curves.get(curveKey(placement)) ?? null,
  };
}

function rankOne(
  file: ImageFile,
  responses: readonly ImageResponse[],
  placements: readonly RankedPlacement[],
  encoded: Encoded | undefined,
): RankedImage {
  const problem = file.problem ?? encoded?.problem ?? null;
  const urls = [...new Set(responses.map(({ url }) => url))].sort(byAddress);
  const shown = placements.some((placement) => placement.shown);
  const judged = placements.length > 0 && (problem === null || !shown);
  const waste = judged ? splitWaste(file.bytes, timesSent(urls), shown, encoded?.steps) : undefined;
  return {
    url: urls[0] ?? placements[0]?.url ?? '',
    urls,
    answers: urls.map((url) => answerOf(responses.find((one) => one.url === url)!)),
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

/** Addresses that can be asked for, before those that only their document knows. */
function byAddress(a: string, b: string): number {
  return Number(isInDocument(a)) - Number(isInDocument(b)) || (a < b ? -1 : 1);
}

/** How often the network carries a file: once for each address, of which `blob:` is none of its own. */
function timesSent(urls: readonly string[]): number {
  return Math.max(1, urls.filter((url) => !isInDocument(url)).length);
}

function answerOf(response: ImageResponse): Answer {
  const { url, status, redirects, declaredType, protocol, headers, transferBytes } = response;
  return { url, status, redirects, declaredType, protocol, headers, transferBytes };
}

function byWaste(a: RankedImage, b: RankedImage): number {
  return (b.wasteBytes ?? -1) - (a.wasteBytes ?? -1) || (a.url < b.url ? -1 : 1);
}

function totalsOf(images: readonly RankedImage[]): RankTotals {
  let neededBytes = 0;
  let wasteBytes = 0;
  let unknownBytes = 0;
  for (const image of images) {
    if (image.wasteBytes === null) unknownBytes += image.bytes * timesSent(image.urls);
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
