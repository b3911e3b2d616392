import { sumOf, wholePortions } from '../../core/waste/portion.js';
import { findingKind } from '../../core/findings/index.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import type { SiteFinding } from '../../core/findings/site/index.js';
import type { FamilyView, FileView, FindingView, ImageView, PageView } from '../views/explain.js';
import { findingTitle, findingWords } from '../words/findings.js';
import { imageDocument, rowDocument } from './rank.js';
import { findingDocuments } from './findings.js';
import { surveyHeadDocument } from './survey-head.js';

/** An image's story as the document `zealous-lynx.explain/1`. */
export function imageStoryDocument({ result, image, picture, others, spared, fix }: ImageView) {
  const { survey, pages } = result;
  const { total } = wholePortions([image.perVisit]);
  return {
    format: 'zealous-lynx.explain/1',
    survey: surveyHeadDocument(survey, pages.length),
    image: {
      ...imageDocument(image, total, picture.id),
      nature: image.encoded?.nature ?? null,
      trials: image.encoded?.attempts ?? [],
    },
    spared,
    fix: {
      steps: fix.steps,
      widths: fix.plan.widths,
      plannedBytes: Math.round(fix.plan.bytes),
      sizes: fix.sizes,
      slotCurve: fix.curve,
    },
    picture: {
      id: picture.id,
      perVisit: wholePortions([sumOf(picture.images.map(({ perVisit }) => perVisit))]).total,
      files: picture.images.map((one) => ({
        url: one.url,
        contentHash: one.file.contentHash,
        mediaType: one.file.mediaType,
        intrinsic: one.file.intrinsic,
        bytes: one.file.bytes,
        pages: one.pages,
      })),
    },
    others: others.map(({ url, file }) => ({ url, contentHash: file.contentHash })),
  };
}

/** The story of a slot as the document `zealous-lynx.explain/1`. */
export function familyStoryDocument({ result, rows, top }: FamilyView) {
  const { survey, pages } = result;
  return {
    format: 'zealous-lynx.explain/1',
    survey: surveyHeadDocument(survey, pages.length),
    families: rows.map((row) => ({
      ...rowDocument(row),
      images: row.images.slice(0, top).map(shortDocument),
    })),
  };
}

/** The story of a finding as the document `zealous-lynx.explain/1`. */
export function findingStoryDocument({ result, id, images, site, top }: FindingView) {
  const { survey, pages } = result;
  const kind = findingKind(id);
  return {
    format: 'zealous-lynx.explain/1',
    survey: surveyHeadDocument(survey, pages.length),
    finding: {
      ...{ id, title: findingTitle(id), doer: kind?.doer ?? null, fix: kind?.fix ?? '' },
      images: images.slice(0, top).map((image) => ({
        ...shortDocument(image),
        findings: findingDocuments(image.findings.filter((one) => one.id === id)),
      })),
      imagesLeftOut: Math.max(0, images.length - top),
      files: site.slice(0, top).map(siteFindingDocument),
      filesLeftOut: Math.max(0, site.length - top),
    },
  };
}

/** The story of a file that is no image as the document `zealous-lynx.explain/1`. */
export function fileStoryDocument({ result, file, site, top }: FileView) {
  const { survey, pages } = result;
  const { resource, text, perVisit } = file;
  return {
    format: 'zealous-lynx.explain/1',
    survey: surveyHeadDocument(survey, pages.length),
    file: {
      ...resource,
      text: text ?? null,
      perVisit,
      findings: site.map(siteFindingDocument),
      pages: file.pages.slice(0, top),
      pagesLeftOut: Math.max(0, file.pages.length - top),
    },
  };
}

function siteFindingDocument(finding: SiteFinding) {
  const { id, data, url, group, thirdParty, pages, count, perVisit, timePerVisit } = finding;
  return {
    ...{ id, message: findingWords(finding), url, group, thirdParty, pages: pages.length, count },
    bytesPerVisit: perVisit === null ? null : Math.round(perVisit),
    timePerVisit: timePerVisit === null ? null : Math.round(timePerVisit),
    data,
  };
}

function shortDocument({ url, file, need, waste }: RankedImage) {
  return {
    ...{ url, contentHash: file.contentHash, intrinsic: file.intrinsic, bytes: file.bytes, need },
    neededBytes: waste?.neededBytes ?? null,
  };
}

/** A page's story as the document `zealous-lynx.explain/1`. */
export function pageStoryDocument({ result, story, load, site, spared }: PageView) {
  const { survey, pages } = result;
  const { page, images } = story;
  const { rows, total } = wholePortions(images.map(({ perVisit }) => perVisit));
  return {
    format: 'zealous-lynx.explain/1',
    survey: surveyHeadDocument(survey, pages.length),
    page: {
      url: page.url,
      finalUrl: page.finalUrl,
      status: page.status,
      group: page.group,
      visits: page.visits,
      error: page.error,
      bytesByType: page.bytesByType,
      perVisit: total,
      spared,
      findings: findingDocuments(story.findings),
      load,
      delivery: site.map(siteFindingDocument),
      images: images.map(({ image, placement, firstScreen, shown }, at) => ({
        url: image.url,
        contentHash: image.file.contentHash,
        kind: placement?.kind ?? null,
        selector: placement?.selector ?? null,
        loading: placement?.loading ?? null,
        firstScreen,
        shown,
        bytes: image.file.bytes,
        neededBytes: image.waste?.neededBytes ?? null,
        perVisit: rows[at]!,
        findings: findingDocuments(image.findings),
      })),
    },
  };
}
