import { hostOf, isFetched, relativePathOf } from '../address/address.js';
import type { RankedImage } from '../rank/ranked-image.js';
import type { ElementImages } from './element-images.js';
import type { RefitSource } from './refit-plan.js';

/** An image of a survey that may be refitted. */
export interface SurveySource extends RefitSource {
  readonly ranked: RankedImage;
}

/** Further facts about the images of a survey. */
export interface SurveyKnowledge {
  /** The widths that the slot families of a file are to be offered in, by its index in the list of files. */
  readonly widthsOf: (fileIndex: number) => readonly number[];
  readonly elements: ElementImages;
  /** Why a file stays as it is, where that is known already, by content hash. */
  readonly reasons: ReadonlyMap<string, string>;
}

/** The images of a survey for a plan, and the paths of all its files on the site's own hosts. */
export function sourcesOfSurvey(
  images: readonly RankedImage[],
  { widthsOf, elements, reasons }: SurveyKnowledge,
): { sources: SurveySource[]; originals: (readonly [string, string])[] } {
  const own = images.filter(({ thirdParty }) => !thirdParty);
  const hosts = new Set(own.flatMap(({ urls }) => urls.filter(isFetched).map(hostOf)));
  const folderOf = (url: string) =>
    hosts.size > 1 ? `${hostOf(url).replace(/[^\w.-]/g, '_')}/` : '';
  const sources = images.map((ranked): SurveySource => {
    const originals = ranked.urls.filter(isFetched);
    const [url] = originals;
    const more = elements.moreWidths(ranked);
    return {
      ...{ ranked, image: ranked.file, encoded: ranked.encoded, originals, keptAs: [ranked.url] },
      reason: reasons.get(ranked.file.contentHash) ?? reasonToKeep(ranked),
      path: url === undefined ? '' : relativePathOf(url),
      folder: url === undefined ? '' : folderOf(url),
      root: url !== undefined && hosts.size > 1 ? `${new URL(url).origin}/` : '/',
      widths: canOfferWidths(ranked) ? [...widthsOf(ranked.fileIndex), ...more] : [],
      widest: Math.max(0, ...more),
    };
  });
  const originals = own.flatMap(({ urls, file }) =>
    urls
      .filter(isFetched)
      .map((url) => [folderOf(url) + relativePathOf(url), file.contentHash] as const),
  );
  return { sources, originals };
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

/** Whether its markup can offer several widths. */
function canOfferWidths(image: RankedImage): boolean {
  return image.placed.some(({ kind, shown }) => kind === 'img' && shown);
}
