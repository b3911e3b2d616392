import { findingKind } from '../../findings/index.js';
import type { Doer, Finding } from '../../findings/finding.js';
import type { SiteFinding } from '../../findings/site/index.js';
import { formatBytes } from '../../base/byte-words.js';
import { groupBy } from '../../base/group-by.js';
import { formatSize } from '../../base/size.js';
import type { Policy } from '../../policy/policy.js';
import type { RankedImage } from '../../rank/ranked-image.js';
import type { RankedPicture } from '../../rank/ranked-picture.js';
import { slotOf } from '../../slots/family-key.js';
import { isVector } from '../../survey/image-file.js';
import type { Cause } from '../../waste/waste.js';
import { offersOwnWidths } from '../plan/own-widths.js';
import { ownWidthsItems } from './own-widths-items.js';
import type { OwnWidthsPlan } from './own-widths-plan.js';
import { widthsOf } from '../refit-job.js';
import { siteItems } from './site-items.js';
import type { DraftItem, WorkItem } from './work-item.js';
import type { MadeJob, PictureSize } from '../refit-job.js';

/** The inputs of a work list. */
export interface WorklistInputs {
  readonly images: readonly RankedImage[];
  /** The picture that each image file is one file of. */
  readonly pictureOf: (image: RankedImage) => RankedPicture;
  readonly jobs: readonly MadeJob[];
  /** Findings on files that are no images. */
  readonly site: readonly SiteFinding[];
  readonly policy: Pick<Policy, 'ceilings' | 'worthwhile'>;
  /** The page group of each page. */
  readonly groups: ReadonlyMap<string, string | null>;
  /** What mends images whose site offers several widths of them. */
  readonly ownWidths: OwnWidthsPlan;
  readonly wordsOf: (finding: Finding) => string;
  /** A short name for a text, always the same for it. */
  readonly idOf: (key: string) => string;
}

/** The work list of a survey: the largest savings first, then what costs no bytes. */
export function worklistOf(inputs: WorklistInputs): WorkItem[] {
  const { images, jobs, ownWidths, idOf } = inputs;
  const jobOf = new Map(jobs.map((job) => [job.file.contentHash, job]));
  const offered = offeredImages(images, jobOf);
  const drafts = [
    ...ownWidthsItems(ownWidths, jobs),
    ...perPicture(
      images.flatMap((image) => itemsOf(image, jobOf.get(image.file.contentHash), inputs)),
    ),
    ...markupItems(offered, inputs),
    ...findingItems(images, new Set(offered.map(({ image }) => image)), inputs),
    ...siteItems(inputs.site, inputs.groups, inputs.wordsOf),
  ];
  return drafts
    .map(({ key, code = null, ...item }) => ({ id: idOf(`${item.who}\n${key}`), ...item, code }))
    .sort((a, b) => b.savedPerVisit - a.savedPerVisit);
}

/** One item where the same is to be done with several files of one picture. */
function perPicture(drafts: readonly DraftItem[]): DraftItem[] {
  return [...groupBy(drafts, ({ key, who }) => `${who}\n${key}`).values()].map((some) => {
    const [first] = some.toSorted((a, b) => b.savedPerVisit - a.savedPerVisit) as [DraftItem];
    if (some.length === 1) return first;
    return {
      ...first,
      what: replaceWords(some.length),
      images: some.length,
      pages: [...new Set(some.flatMap(({ pages }) => pages))],
      savedPerVisit: some.reduce((sum, { savedPerVisit }) => sum + savedPerVisit, 0),
    };
  });
}

function replaceWords(files: number): string {
  return files === 1
    ? 'replace it with the refitted file'
    : `replace its ${files} files with the refitted ones`;
}

/** What is to be done about one image file. */
function itemsOf(
  image: RankedImage,
  job: MadeJob | undefined,
  { policy: { ceilings, worthwhile }, groups, pictureOf }: WorklistInputs,
): DraftItem[] {
  const { file } = image;
  const about = aboutImage(image, groups);
  const { wasteBytes, causes } = restOf(image);
  if (image.thirdParty) {
    if (wasteBytes < 1 || file.bytes < worthwhile.bytes) return [];
    const to = image.need ? `${formatSize(image.need)}, ${image.encoded?.format}` : '';
    const what = 'ask for the image in the size in which it is shown';
    const key = `size\n${image.url}`;
    return [{ ...about, key, who: 'third party', what, to, savedPerVisit: wasteBytes }];
  }
  const items: DraftItem[] = [];
  const add = (who: Doer, what: string, to: string, savedPerVisit: number, of = image.url) => {
    if (savedPerVisit >= 1)
      items.push({ ...about, key: `${what}\n${of}`, who, what, to, savedPerVisit });
  };
  if (file.bytes >= worthwhile.bytes) {
    add('markup', 'do not send it where it is not shown', 'not sent', causes.neverShown);
    const addresses = image.urls.length;
    const what = `link to one address: it is the same file under ${addresses} addresses`;
    add('markup', what, image.url, causes.duplicate);
  }
  if (isVector(file))
    add('server', 'send it compressed', 'content-encoding: gzip or better', causes.wire);
  if (job) {
    const { to, path, mediaType } = job.file;
    const told = [path, pixelsOf(to), mediaType, formatBytes(to.bytes)].filter(Boolean).join(', ');
    const saved = fileWaste(causes) - markupSaved(image, job);
    add('content', replaceWords(1), told, saved, pictureOf(image).images[0]!.url);
  }
  if (job && job.frames > 1 && job.file.to.bytes > ceilings.content)
    items.push({
      ...{ ...about, key: `video\n${image.url}`, who: 'content', savedPerVisit: 0 },
      what: `make it a video: its ${job.frames} frames take ${formatBytes(job.file.to.bytes)} even at their need`,
      to: 'a muted video that loops',
    });
  return items;
}

/** An image that markup is to offer in several widths, and what that saves. */
interface OfferedImage {
  readonly image: RankedImage;
  readonly job: MadeJob;
  readonly saved: number;
  readonly first: RankedImage['placed'][number];
}

function offeredImages(
  images: readonly RankedImage[],
  jobOf: ReadonlyMap<string, MadeJob>,
): OfferedImage[] {
  return images.flatMap((image) => {
    const job = jobOf.get(image.file.contentHash);
    const saved = job && !image.thirdParty ? markupSaved(image, job) : 0;
    const first = image.placed.find((one) => one.shown && one.kind === 'img');
    return job && saved >= 1 && first ? [{ image, job, saved, first }] : [];
  });
}

/** One item for all images of a slot family that markup is to offer in several widths. */
function markupItems(offered: readonly OfferedImage[], { groups }: WorklistInputs): DraftItem[] {
  const families = groupBy(offered, ({ first: { page, selector } }) =>
    familyKey(page, selector, groups),
  );
  return [...families].map(([key, some]): DraftItem => {
    const [{ image, job }] = some as [(typeof some)[number]];
    const widths = [...new Set(some.map((one) => widthsOf(one.job).length))];
    const which = some.length === 1 ? 'it' : `these ${some.length} images`;
    const many = widths.length === 1 ? `${widths[0]}` : `up to ${Math.max(...widths)}`;
    return {
      ...{ ...aboutImage(image, groups), key: `widths\n${key}`, who: 'markup' },
      what: `offer ${which} in ${many} widths (markup in snippets.md)`,
      images: some.length,
      pages: [...new Set(some.flatMap((one) => one.image.placed.map(({ page }) => page)))],
      to: some.length === 1 ? `${widthsOf(job).join(', ')} pixels wide` : '',
      savedPerVisit: some.reduce((sum, { saved }) => sum + saved, 0),
    };
  });
}

/** One item for all images of a slot family with the same finding. */
function findingItems(
  images: readonly RankedImage[],
  offered: ReadonlySet<RankedImage>,
  { groups, wordsOf, pictureOf }: WorklistInputs,
): DraftItem[] {
  const found = images.flatMap((image) =>
    image.findings.flatMap((finding) => {
      const kind = findingKind(finding.id);
      if (!kind?.doer || !kind.isWork || (kind.isInSnippets && offered.has(image))) return [];
      return [{ image, finding, doer: kind.doer }];
    }),
  );
  const rows = groupBy(found, ({ image, finding }) => {
    const first = image.placed.find(({ shown }) => shown) ?? image.placed[0];
    const where = first ? familyKey(first.page, first.selector, groups) : image.url;
    return `${finding.id}\n${where}`;
  });
  return [...rows].map(([key, some]): DraftItem => {
    const [{ image, finding, doer }] = some as [(typeof some)[number]];
    const pictures = new Set(some.map((one) => pictureOf(one.image).id)).size;
    const more = pictures - 1;
    const others = more === 0 ? '' : ` (and ${more} more ${more === 1 ? 'image' : 'images'} there)`;
    return {
      ...{ ...aboutImage(image, groups), key, who: doer, to: '', savedPerVisit: 0 },
      images: pictures,
      pages: [...new Set(some.flatMap((one) => one.image.placed.map(({ page }) => page)))],
      what: wordsOf(finding) + others,
    };
  });
}

function familyKey(
  page: string,
  selector: string,
  groups: ReadonlyMap<string, string | null>,
): string {
  return `${groups.get(page) ?? page}\n${slotOf(selector)}`;
}

function aboutImage(image: RankedImage, groups: ReadonlyMap<string, string | null>) {
  const { placed, file } = image;
  const first = placed.find(({ shown }) => shown) ?? placed[0];
  return {
    url: image.url,
    images: 1,
    where: first ? (groups.get(first.page) ?? first.page) : null,
    pages: [...new Set(placed.map(({ page }) => page))],
    selector: first?.selector ?? '',
    from: [file.intrinsic && formatSize(file.intrinsic), file.mediaType, formatBytes(file.bytes)]
      .filter(Boolean)
      .join(', '),
  };
}

/** The waste of an image in the visits where no element chooses among widths of the site: those are planned apart. */
function restOf(image: RankedImage): RankedImage['perVisit'] {
  const { placed, perVisit } = image;
  if (!placed.some(offersOwnWidths)) return perVisit;
  return image.sumWithout(
    new Set(placed.filter(offersOwnWidths).map(({ page, view }) => `${page}\n${view}`)),
  );
}

function fileWaste(causes: Readonly<Record<Cause, number>>): number {
  return causes.metadata + causes.pixels + causes.quality + causes.format;
}

/** Pixels as people write them; nothing for a vector. */
function pixelsOf({ width, height }: PictureSize): string {
  return width === null || height === null ? '' : formatSize({ width, height });
}

/** The bytes that narrower widths save on an average visit, beyond the file at its largest need. */
function markupSaved(image: RankedImage, { file, variants, isInPlace }: MadeJob): number {
  if (!variants.some(({ use }) => use === 'width')) return 0;
  // It keeps its width where it is: all that other elements save, they save by markup.
  if (isInPlace) return fileWaste(restOf(image).causes);
  const saved = image.deliveries.reduce((sum, { verdict: { waste, need }, weight }) => {
    const shown = waste !== null && need !== null;
    return shown ? sum + Math.max(0, file.to.bytes - waste.neededBytes) * weight : sum;
  }, 0);
  return Math.min(fileWaste(image.perVisit.causes), saved);
}
