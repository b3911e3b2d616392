import { hostOf } from '../../../address/address.js';
import { fileFinding, hasCome, isStatic } from '../site-case.js';

/** Cookies up to this, in bytes, go with the other headers unnoticed. */
const few = 100;

/** Cookies that browsers send along with every request of a static file. */
export const cookiesOnFiles = fileFinding({
  id: 'cookies-on-files',
  title: 'cookies sent along with static files',
  doer: 'server',
  fix: 'Set cookies for the path or host that needs them, keep them short, or serve static files from a host without cookies.',
  isWork: true,
  docs: {
    meaning:
      'Requests of style sheets, scripts, fonts and images of the site carry over 100 bytes of cookies.',
    why: 'The way to the server is the narrow one, and a cookie can keep shared caches from keeping the file.',
    computed:
      'The bytes of the cookie header in the requests of a visit. Files of one host are one finding.',
    ignore: 'Where the connection is HTTP/2 or later, which sends the same header once.',
  },
  step: () => 'set cookies only for what needs them',
  checkFile: ({ resource }) => {
    const { url, thirdParty, cookieBytes } = resource;
    if (!isStatic(resource) || thirdParty || cookieBytes <= few || !hasCome(resource))
      return undefined;
    const host = hostOf(url);
    return { data: { url, host, cookieBytes }, bytes: cookieBytes, together: host };
  },
  describe: ({ host, cookieBytes }, { bytes }) =>
    `is asked for with ${bytes(cookieBytes)} of cookies, like all static files of ${host}`,
});
