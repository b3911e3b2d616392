import { findingsOf } from '../findings/image/index.js';
import type { Finding } from '../findings/finding.js';
import type { ImageCase, PlacedImage } from '../findings/image/image-case.js';
import { unmuted } from '../policy/mutes.js';
import type { Encoded } from '../survey/encoded.js';
import type { ImageFile } from '../survey/image-file.js';
import type { ResponseFacts } from '../survey/survey-tables.js';
import type { Ledger } from '../waste/ledger.js';

/** An image file of a survey, as findings look at it. */
export interface FoundImage {
  /** Place in the list of files. */
  readonly fileIndex: number;
  readonly file: ImageFile;
  readonly encoded: Encoded | undefined;
  readonly problem: string | null;
  readonly url: string;
  readonly urls: readonly string[];
  readonly answers: readonly ResponseFacts[];
  readonly placed: readonly PlacedImage[];
}

/**
 * What is wrong with an image file of a survey, without what the policy mutes.
 *
 * @param imageAt an image by its place in the list of files
 */
export function findingsOfImage(
  image: FoundImage,
  ledger: Ledger,
  imageAt: (fileIndex: number) => FoundImage,
): readonly Finding[] {
  const { policy } = ledger.inputs;
  const placements = image.placed;
  const found = findingsOf({
    file: { ...image.file, problem: image.problem },
    encoded: image.encoded,
    answers: image.answers,
    answerTo: (placement) => answerTo(image, placement, ledger),
    placements,
    larger: largerThan(image, ledger, imageAt),
    policy,
    isInSight: (placement) => ledger.isInSight(placement),
    views: new Map(ledger.facts.head.views.map((view) => [view.name, view])),
  });
  return unmuted(found, policy.mute, () => ({
    urls: image.urls,
    groups: placements.map(({ page }) => ledger.groups.get(page) ?? page),
  }));
}

/** What the address of an image answered first on the page, and in the view, of a placement. */
function answerTo(
  { fileIndex }: FoundImage,
  { row }: PlacedImage,
  { facts, answers }: Ledger,
): ResponseFacts | undefined {
  const { responses, placements } = facts;
  const { visit, answer } = responses.columns;
  const wanted = placements.columns.visit[row]!;
  for (let at = answers.starts[fileIndex]!; at < answers.starts[fileIndex + 1]!; at++) {
    const response = answers.rows[at]!;
    if (visit[response] === wanted) return responses.answers[answer[response]!]!;
  }
  return undefined;
}

/** The largest file of the same picture, where that is another one. */
function largerThan(
  image: FoundImage,
  { facts: { pictures } }: Ledger,
  imageAt: (fileIndex: number) => FoundImage,
): NonNullable<ImageCase['larger']> | null {
  const largest = pictures.files[pictures.ofFile[image.fileIndex]!]![0]!;
  const { file, url } = imageAt(largest);
  const isWider = (file.intrinsic?.width ?? 0) > (image.file.intrinsic?.width ?? 0);
  return isWider && file.intrinsic ? { url, intrinsic: file.intrinsic } : null;
}
