import type { Reach } from '../../reach/reach.js';
import { accessHeaders } from '../../core/address/access.js';
import { fetchFile } from '../../crawl/fetch-file.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import { robotName } from '../../crawl/robots.js';
import { maxSitemapBytes } from '../../crawl/sitemap.js';
import type { WorkOptions } from './survey-options.js';

/** Milliseconds within which a server must send its robots.txt or a sitemap. */
const fileTimeout = 15_000;

/** Fetches files as the browser of this survey would. */
export function fetcher(
  {
    userAgent,
    accesses = [],
    anyCertificate,
  }: Pick<WorkOptions, 'userAgent' | 'accesses' | 'anyCertificate'>,
  reach: Reach,
  limit = maxSitemapBytes,
): (url: string, headers?: Readonly<Record<string, string>>) => Promise<FetchedFile> {
  return (url, headers) =>
    fetchFile(url, {
      reach,
      headers,
      userAgent: userAgent ?? robotName,
      headersFor: (address) => accessHeaders(accesses, address),
      anyCertificate,
      limit,
      timeout: fileTimeout,
    });
}
