import { hostOf, isFetched, relativePathOf, withoutFragment } from '../../address/address.js';
import { groupBy } from '../../base/group-by.js';
import { pixelsAt } from '../../policy/need.js';
import type { RankedImage } from '../../rank/ranked-image.js';
import type { Encoded } from '../../survey/encoded.js';
import type { ImageFile } from '../../survey/image-file.js';
import type { Size } from '../../base/size.js';
import type { PictureUse } from '../../survey/picture-use.js';
import type { ElementImages } from '../markup/element-images.js';
import { offersOwnWidths, ownCandidates } from './own-widths.js';
import type { Original } from './refit-names.js';
import type { RefitSource } from './refit-plan.js';
import type { SystemWidths } from './system-widths.js';

/** An image of a survey that may be refitted. */
export interface SurveySource extends RefitSource {
  /** `null` for a candidate that no view of the survey chose. */
  readonly ranked: RankedImage | null;
}

/** A candidate of a `srcset` that no view of the survey chose. */
export interface UnchosenCandidate {
  readonly url: string;
  readonly file: ImageFile;
  readonly encoded: Encoded;
}

/** Further facts about the images of a survey. */
export interface SurveyKnowledge {
  /** The widths that the slot families of a file are to be offered in, by its index in the list of files. */
  readonly widthsOf: (fileIndex: number) => readonly number[];
  readonly elements: ElementImages;
  /** Why a file stays as it is, where that is known already, by content hash. */
  readonly reasons: ReadonlyMap<string, string>;
  /** The pictures that pages name without showing them there. */
  readonly uses: readonly PictureUse[];
  readonly candidates: readonly UnchosenCandidate[];
  readonly systemWidths: SystemWidths;
}

/** The images of a survey for a plan, and all files on the site's own hosts that are known to be there. */
export function sourcesOfSurvey(
  images: readonly RankedImage[],
  { widthsOf, elements, reasons, uses, candidates, systemWidths }: SurveyKnowledge,
): { sources: SurveySource[]; originals: Original[] } {
  const own = images.filter(({ thirdParty }) => !thirdParty);
  const hosts = new Set(own.flatMap(({ urls }) => urls.filter(isFetched).map(hostOf)));
  const folderOf = (url: string) =>
    hosts.size > 1 ? `${hostOf(url).replace(/[^\w.-]/g, '_')}/` : '';
  const offered = new Set(
    own.flatMap(({ placed }) =>
      placed.filter(offersOwnWidths).flatMap((one) => ownCandidates(one).map(({ url }) => url)),
    ),
  );
  const toMake = (urls: readonly string[], size: Size | null) =>
    urls.flatMap((url) =>
      systemWidths.of(url).flatMap((width) => {
        const path = size && systemWidths.pathOf(url, pixelsAt(size, width / size.width));
        return path ? [{ width, path: folderOf(url) + path }] : [];
      }),
    );
  const placeOf = (url: string | undefined) => ({
    path: url === undefined ? '' : relativePathOf(url),
    folder: url === undefined ? '' : folderOf(url),
    root: url !== undefined && hosts.size > 1 ? `${new URL(url).origin}/` : '/',
  });
  const sources = images.map((ranked): SurveySource => {
    const originals = ranked.urls.filter(isFetched);
    const more = elements.moreWidths(ranked);
    return {
      ...{ ranked, image: ranked.file, encoded: ranked.encoded, originals, keptAs: [ranked.url] },
      reason: reasons.get(ranked.file.contentHash) ?? reasonToKeep(ranked),
      ...placeOf(originals[0]),
      widths: canOfferWidths(ranked) ? [...widthsOf(ranked.fileIndex), ...more] : [],
      widest: Math.max(0, ...more),
      systemWidths: toMake(originals, ranked.file.intrinsic),
      inPlace: ranked.file.frames === 1 && originals.some((address) => offered.has(address)),
    };
  });
  const unchosen = unchosenSources(candidates, images, placeOf, toMake);
  return {
    sources: [...sources, ...unchosen],
    originals: originalsOf(own, offered, { uses, candidates, hosts, folderOf }),
  };
}

/** Candidates that no view chose, each content once; what a view chose under another address is there already. */
function unchosenSources(
  candidates: readonly UnchosenCandidate[],
  images: readonly RankedImage[],
  placeOf: (url: string) => Pick<RefitSource, 'path' | 'folder' | 'root'>,
  toMake: (urls: readonly string[], size: Size | null) => RefitSource['systemWidths'],
): SurveySource[] {
  const chosen = new Set(images.map(({ file }) => file.contentHash));
  const contents = groupBy(
    candidates.filter(({ file }) => !chosen.has(file.contentHash)),
    ({ file }) => file.contentHash,
  );
  return [...contents.values()].map((some): SurveySource => {
    const [{ file, encoded }] = some as [UnchosenCandidate];
    const originals = some.map(({ url }) => url);
    return {
      ...{ ranked: null, image: file, encoded, originals, keptAs: originals },
      ...{ reason: encoded.problem, ...placeOf(originals[0]!) },
      ...{ widths: [], widest: 0, inPlace: true },
      systemWidths: toMake(originals, file.intrinsic),
    };
  });
}

/** The files of the survey, and those that its pages name: as candidates, by links, for other programs. */
function originalsOf(
  own: readonly RankedImage[],
  offered: ReadonlySet<string>,
  site: Pick<SurveyKnowledge, 'uses' | 'candidates'> & {
    readonly hosts: ReadonlySet<string>;
    readonly folderOf: (url: string) => string;
  },
): Original[] {
  const whole = new Set([...offered, ...site.uses.map(({ url }) => withoutFragment(url))]);
  const seen = [
    ...own.flatMap(({ urls, file }) => urls.filter(isFetched).map((url) => ({ url, file }))),
    ...site.candidates,
  ];
  const known = new Set(seen.map(({ url }) => url));
  const pathOf = (url: string) => site.folderOf(url) + relativePathOf(url);
  return [
    ...[...whole]
      .filter((url) => isFetched(url) && !known.has(url) && site.hosts.has(hostOf(url)))
      .map((url) => ({ path: pathOf(url), contentHash: null, wholeWidth: null })),
    ...seen.map(({ url, file }) => ({
      path: pathOf(url),
      contentHash: file.contentHash,
      wholeWidth: whole.has(url) ? (file.intrinsic?.width ?? null) : null,
    })),
  ];
}

function reasonToKeep(image: RankedImage): string | null {
  const { encoded } = image;
  if (!image.urls.some(isFetched)) return 'it is embedded in the document that shows it';
  if (image.thirdParty) return 'it belongs to a third party';
  if (!image.isPlaced) return 'no element shows it';
  if (!image.isJudged) return image.problem ?? 'it cannot be read';
  if (!encoded) return 'no page shows it';
  if (encoded.problem !== null) return encoded.problem;
  const exempt = image.rules.find((rule) => rule.exempt);
  return exempt ? `the policy allows it as it is: ${exempt.reason}` : null;
}

/** Whether its markup can offer several widths, and does not yet. */
function canOfferWidths(image: RankedImage): boolean {
  return image.placed.some(
    (placed) => placed.kind === 'img' && placed.shown && !offersOwnWidths(placed),
  );
}
