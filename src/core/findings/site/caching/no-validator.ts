import { hostOf } from '../../../address/address.js';
import { fileFinding } from '../site-case.js';
import { day, lifetimeOf } from './lifetime.js';

/** A document that a browser cannot ask after: it is sent whole on every visit. */
export const noValidator = fileFinding({
  id: 'no-validator',
  title: 'document without a validator',
  doer: 'server',
  fix: 'Send etag or last-modified with the document, and answer 304 to who has the newest.',
  isWork: true,
  docs: {
    meaning: 'A document has neither etag nor last-modified, and may not be kept for a day.',
    why: 'Who comes back is sent all of it again, changed or not.',
    computed:
      'By the headers of the response (RFC 9110, section 8.8). It costs nothing on a first visit: clock --warm measures the second one.',
    ignore: 'Where the document is another for each visitor, or small.',
  },
  step: () => 'send etag or last-modified with it',
  checkFile: ({ resource, pages }, { servedHere }) => {
    const { url, type, status, headers, transferBytes, thirdParty } = resource;
    if (type !== 'html' || status !== 200 || thirdParty || !pages.includes(url)) return undefined;
    if (headers.etag !== undefined || headers['last-modified'] !== undefined) return undefined;
    if (servedHere.has(hostOf(url)) || (lifetimeOf(resource) ?? 0) >= day) return undefined;
    return { data: { url, transferBytes }, bytes: null };
  },
  describe: ({ transferBytes }, { bytes }) =>
    `has no validator (etag, last-modified): each visit loads its ${bytes(transferBytes)} again`,
});
