import { hostOf } from '../../../address/address.js';
import { fileFinding, hasCome } from '../site-case.js';

/** A static file whose version stands behind a question mark. */
export const queryString = fileFinding({
  id: 'query-string',
  title: 'static file with a query string',
  doer: 'markup',
  fix: 'Put the version into the path (site.1f2e3d4c.css), and let browsers keep the file for a year.',
  isWork: true,
  docs: {
    meaning: 'The address of a style sheet, a script or a font of the site has a query string.',
    why: 'Some caches on the way do not keep such addresses, or keep the file once for each query.',
    computed:
      'By the address; files of one host and type are one finding. It costs nothing on a first visit.',
    ignore:
      'Where no cache stands between the server and its visitors, as with most sites over TLS.',
  },
  step: () => 'put the version into the path instead of the query',
  checkFile: ({ resource }) => {
    const { url, type, thirdParty } = resource;
    const isFile = type === 'style' || type === 'script' || type === 'font';
    const query = new URL(url).search;
    if (!isFile || thirdParty || query.length < 2 || !hasCome(resource)) return undefined;
    return { data: { url, query }, bytes: null, together: `${type} ${hostOf(url)}` };
  },
  describe: ({ query }) =>
    `has a query string (${query.slice(0, 60)}) where its name could say the version`,
});
