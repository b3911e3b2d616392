import type { Resource, Resources } from '../../survey/resource.js';
import type { ImageFile } from '../../survey/image-file.js';
import type { ResponseFacts, ResponseTable } from '../../survey/survey-tables.js';
import type { SurveyedVisit } from '../../survey/survey.js';
import type { SentFile } from './site-case.js';

/** The visits of a survey, with what each weighs among them. */
export interface WeighedVisits {
  readonly visits: readonly SurveyedVisit[];
  /** Of each; all together are 1. */
  readonly weights: ArrayLike<number>;
}

/** The images of a survey, as they were sent. */
export interface SentImages {
  readonly files: readonly ImageFile[];
  readonly responses: ResponseTable;
}

/** The files that visits were sent, each address once: what is no image, and the images if they are given. */
export function sentFiles(
  { list, ofVisit, texts }: Resources,
  { visits, weights }: WeighedVisits,
  images?: SentImages,
): SentFile[] {
  interface Collected extends SentFile {
    resource: Resource;
    perVisit: number;
    pages: string[];
    visits: number[];
  }
  const files = new Map<string, Collected>();
  const add = (resource: Resource, visit: number, image?: ImageFile) => {
    const { page, measured } = visits[visit]!;
    if (!measured || !(weights[visit]! > 0)) return;
    const known = files.get(resource.url);
    const text = texts.get(resource.contentHash ?? '');
    const file = known ?? { resource, text, image, pages: [], visits: [], perVisit: 0 };
    if (!known) files.set(resource.url, file);
    // A visit may name an address both as an image and as something else.
    if (file.visits.at(-1) === visit) return;
    if (resource.transferBytes > file.resource.transferBytes)
      Object.assign(file, { resource, text, image });
    file.perVisit += weights[visit]!;
    file.visits.push(visit);
    if (file.pages.at(-1) !== page) file.pages.push(page);
  };
  ofVisit.forEach((places, visit) => {
    for (const place of places) add(list[place]!, visit);
  });
  if (images) {
    const { columns, answers } = images.responses;
    const known = new Map(images.files.map((file) => [file.contentHash, file]));
    const resources = answers.map((answer) => {
      const image = known.get(answer.contentHash ?? '');
      return [imageResource(answer, image), image] as const;
    });
    columns.visit.forEach((visit, row) => {
      const [resource, image] = resources[columns.answer[row]!] ?? [];
      if (resource) add(resource, visit, image);
    });
  }
  return [...files.values()];
}

/** An image as a file among others; nothing for what stands in the document. */
function imageResource(answer: ResponseFacts, image: ImageFile | undefined): Resource | undefined {
  const { url, status, declaredType, protocol, headers, transferBytes, contentHash } = answer;
  if (!/^https?:/.test(url)) return undefined;
  return {
    ...{ url, type: 'image', status, mediaType: declaredType, protocol, headers, transferBytes },
    ...{ wireBytes: transferBytes, bodyBytes: image?.bytes ?? 0, contentHash },
    ...{ renderBlocking: false, thirdParty: answer.thirdParty, initiator: answer.initiator },
    ...{ initiatedBy: null, redirects: answer.redirects },
    ...{ cookieBytes: answer.cookieBytes ?? 0, times: 1 },
  };
}
