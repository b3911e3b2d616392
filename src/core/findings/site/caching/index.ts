import { cookiesOnFiles } from './cookies-on-files.js';
import { longLivedDocument } from './long-lived-document.js';
import { noValidator } from './no-validator.js';
import { queryString } from './query-string.js';
import { severalCopies } from './several-copies.js';
import { shortLifetime } from './short-lifetime.js';
import { splitCache } from './split-cache.js';

/** Findings on what browsers and other caches keep. */
export const cachingFindings = [
  severalCopies,
  shortLifetime,
  noValidator,
  longLivedDocument,
  splitCache,
  queryString,
  cookiesOnFiles,
] as const;
