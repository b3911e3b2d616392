import type { ImageResponse } from './image-file.js';

/** An image that pages request and that does not arrive, or not completely. */
export interface MissingImage {
  readonly url: string;
  readonly problem: string;
  /** HTTP status; 0 without a response. */
  readonly status: number;
  /** How many pages ask for it, and the first of them. */
  readonly pages: number;
  readonly page: string;
}

/** The images that arrived nowhere, those requested by most pages first. */
export function missingImages(responses: Iterable<ImageResponse>): MissingImage[] {
  const found = new Map<string, { first: ImageResponse; pages: Set<string> } | 'came'>();
  for (const response of responses) {
    const { url, page, contentHash } = response;
    const known = found.get(url);
    if (contentHash !== null) found.set(url, 'came');
    else if (known === undefined) found.set(url, { first: response, pages: new Set([page]) });
    else if (known !== 'came') known.pages.add(page);
  }
  return [...found.values()]
    .flatMap((entry) => (entry === 'came' ? [] : entry))
    .map(({ first: { url, problem, status, page }, pages }) => ({
      url,
      problem: problem ?? 'did not arrive',
      status,
      pages: pages.size,
      page,
    }))
    .sort((a, b) => b.pages - a.pages || (a.url < b.url ? -1 : 1));
}
