import type { RankRow } from '../../core/rank/rank-view.js';
import type { RankView } from '../views/rank.js';
import type { Portion } from '../../core/waste/portion.js';
import { wholePortions } from '../../core/waste/portion.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import { findingDocuments } from './findings.js';
import { surveyHeadDocument } from './survey-head.js';

/**
 * A ranking as the document `zealous-lynx.rank/1`; `imageLimit` limits the images, not the totals. By image, all files of
 * the pictures that are listed are.
 */
export function rankDocument(view: RankView) {
  const { result, by, rows, thirdParty, total, thirdPartyTotal, leftOut, unweighted } = view;
  const { survey, pages, weights, unmatchedRules } = result;
  const { count, totals, unplaced } = view.files;
  const shown = by === 'image' ? [...rows, ...thirdParty].flatMap((row) => row.images) : [];
  const images = view.images.slice(0, Math.max(view.imageLimit, shown.length));
  const { rows: portions } = wholePortions(images.map(({ perVisit }) => perVisit));
  return {
    format: 'zealous-lynx.rank/1',
    survey: surveyHeadDocument(survey, pages.length),
    totals,
    weights: { unweighted, ...weights },
    perVisit: { ...total, thirdParty: thirdPartyTotal },
    by,
    rows: [...rows, ...thirdParty].map(rowDocument),
    rowsLeftOut: leftOut,
    ...(view.timed && { timed: view.timed }),
    images: images.map((image, at) =>
      imageDocument(image, portions[at]!, view.pictureOf(image), view.placementLimit),
    ),
    imagesLeftOut: count - images.length,
    unplaced,
    unmatchedRules,
  };
}

/** A row of a ranking as every listing of rows shows it. */
export function rowDocument(row: RankRow) {
  const { key, thirdParty, perVisit, ofPage, files, pages, worst, family, time } = row;
  return {
    key,
    thirdParty,
    perVisit,
    ofPage,
    files,
    pages,
    ...(time && { spared: time }),
    worst: worst && { url: worst.url, contentHash: worst.file.contentHash },
    family: family && {
      where: family.where,
      kind: family.kind,
      slot: family.slot,
      slotCurve: family.curve,
      sizes: family.sizes,
      widths: family.plan.widths,
      plannedBytes: Math.round(family.plan.bytes),
    },
  };
}

/** An image file as every full listing shows it. */
export function imageDocument(
  image: RankedImage,
  perVisit: Portion,
  picture: string,
  placementLimit = Infinity,
) {
  const { file, waste, encoded } = image;
  return {
    url: image.url,
    urls: image.urls,
    answers: image.addressResponses,
    contentHash: file.contentHash,
    picture,
    mediaType: file.mediaType,
    intrinsic: file.intrinsic,
    frames: file.frames,
    problem: image.problem,
    bytes: file.bytes,
    transferBytes: image.transferBytes,
    need: image.need,
    neededBytes: waste?.neededBytes ?? null,
    neededFormat: encoded && image.problem === null ? encoded.format : null,
    wasteBytes: waste?.wasteBytes ?? null,
    causes: waste?.causes ?? null,
    basis: image.basis,
    perVisit,
    pages: image.pages,
    thirdParty: image.thirdParty,
    allowed: image.rules,
    findings: findingDocuments(image.findings),
    placements: image
      .firstPlacements(placementLimit)
      .map(({ contentHash: _, ...placement }) => placement),
  };
}
