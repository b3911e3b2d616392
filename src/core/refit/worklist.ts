import type { Doer, Finding } from '../findings/finding.js';
import { findingKind } from '../findings/index.js';
import { isVector } from '../survey/image-file.js';
import type { RankedImage } from '../rank/ranked-image.js';
import type { Policy } from '../policy/policy.js';
import { widthsOf } from './refit-job.js';
import type { MadeJob, PictureSize } from './refit-job.js';
import { formatSize } from '../base/size.js';
import type { Cause } from '../waste/waste.js';

/** One fix. */
export interface WorkItem {
  readonly who: Doer;
  /** What is to be done, in words. */
  readonly what: string;
  /** Address of the image. */
  readonly url: string;
  readonly pages: readonly string[];
  /** Finds an element that shows it; empty where none does. */
  readonly selector: string;
  readonly from: string;
  readonly to: string;
  /** Bytes saved on an average visit to the whole site; 0 for findings that cost no bytes. */
  readonly savedPerVisit: number;
}

/** Savings below this are not worth an item of their own. */
const leastBytes = 1;

/** The work list of a survey: the largest savings first, then what costs no bytes. */
export function worklistOf(
  images: readonly RankedImage[],
  jobs: readonly MadeJob[],
  policy: Pick<Policy, 'ceilings'>,
  wordsOf: (finding: Finding) => string,
): WorkItem[] {
  const jobOf = new Map(jobs.map((job) => [job.file.contentHash, job]));
  const items = images.flatMap((image) =>
    itemsOf(image, jobOf.get(image.file.contentHash), policy, wordsOf),
  );
  return items.sort((a, b) => b.savedPerVisit - a.savedPerVisit);
}

function itemsOf(
  image: RankedImage,
  job: MadeJob | undefined,
  { ceilings }: Pick<Policy, 'ceilings'>,
  wordsOf: (finding: Finding) => string,
): WorkItem[] {
  const { placed, perVisit, file } = image;
  const about = {
    url: image.url,
    pages: [...new Set(placed.map(({ page }) => page))],
    selector: (placed.find(({ shown }) => shown) ?? placed[0])?.selector ?? '',
    from: [file.intrinsic && formatSize(file.intrinsic), file.mediaType, kilobytes(file.bytes)]
      .filter(Boolean)
      .join(', '),
  };
  if (image.thirdParty) {
    if (perVisit.wasteBytes < leastBytes) return [];
    const to = image.need ? `${formatSize(image.need)}, ${image.encoded?.format}` : '';
    const what = 'ask for the image in the size in which it is shown';
    return [{ ...about, who: 'third party', what, to, savedPerVisit: perVisit.wasteBytes }];
  }
  const items: WorkItem[] = [];
  const add = (who: Doer, what: string, to: string, savedPerVisit: number) => {
    if (savedPerVisit >= leastBytes) items.push({ ...about, who, what, to, savedPerVisit });
  };
  const { causes } = perVisit;
  const sum = (...names: readonly Cause[]) => names.reduce((all, name) => all + causes[name], 0);
  add('markup', 'do not send it where it is not shown', 'not sent', causes.neverShown);
  add('markup', 'link to one of its addresses everywhere', image.url, causes.duplicate);
  if (isVector(file))
    add('server', 'send it compressed', 'content-encoding: gzip or better', sum('wire'));
  if (job) {
    const { to, path } = job.file;
    const whole = sum('metadata', 'pixels', 'quality', 'format');
    const inMarkup = Math.min(whole, offeredPerVisit(image, job));
    const told = [path, pixelsOf(to), job.file.mediaType, kilobytes(to.bytes)].filter(Boolean);
    add('content', 'replace it with the refitted file', told.join(', '), whole - inMarkup);
    const widths = widthsOf(job);
    add(
      'markup',
      `offer it in ${widths.length} widths (markup in snippets.md)`,
      `${widths.join(', ')} pixels wide`,
      inMarkup,
    );
  }
  if (job && job.frames > 1 && job.file.to.bytes > ceilings.content)
    items.push({
      ...{ ...about, who: 'content', savedPerVisit: 0, to: 'a muted video that loops' },
      what: `make it a video: its ${job.frames} frames take ${kilobytes(job.file.to.bytes)} even at their need`,
    });
  const found = image.findings.flatMap((finding): WorkItem[] => {
    const kind = findingKind(finding.id);
    if (!kind?.doer || !kind.isWork) return [];
    return [{ ...about, who: kind.doer, what: wordsOf(finding), to: '', savedPerVisit: 0 }];
  });
  return [...items, ...found];
}

/** Bytes as people write them. */
function kilobytes(bytes: number): string {
  const thousands = bytes / 1_000;
  return `${thousands < 10 ? thousands.toFixed(1) : Math.round(thousands)} kB`;
}

/** Pixels as people write them; nothing for a vector. */
function pixelsOf({ width, height }: PictureSize): string {
  return width === null || height === null ? '' : formatSize({ width, height });
}

/** The bytes that narrower widths save on an average visit, beyond the file at its largest need. */
function offeredPerVisit({ deliveries }: RankedImage, { file, variants }: MadeJob): number {
  if (!variants.some(({ use }) => use === 'width')) return 0;
  return deliveries.reduce((sum, { verdict: { waste, need }, weight }) => {
    const shown = waste !== null && need !== null;
    return shown ? sum + Math.max(0, file.to.bytes - waste.neededBytes) * weight : sum;
  }, 0);
}
