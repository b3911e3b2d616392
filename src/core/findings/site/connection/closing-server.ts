import { roundsOf } from '../line.js';
import { serviceFinding } from '../site-case.js';
import { filesByPage } from './files-by-page.js';

/** A server that closes the connection after each response. */
export const closingServer = serviceFinding({
  id: 'closing-server',
  title: 'server that closes connections',
  doer: 'server',
  fix: 'Turn keep-alive on, and allow many requests on a connection.',
  isWork: true,
  docs: {
    meaning: 'A server says connection: close with its responses over HTTP/1.1.',
    why: 'Each file is a new connection: a round trip more, two with TLS, and a slow start of the line.',
    computed:
      'By the header connection (RFC 9112, section 9.6). The time is a round trip on the line mobile for each six files after the first, on the page that has the most.',
    ignore: 'Where the server sends a single file.',
  },
  step: () => 'turn keep-alive on',
  checkService: ({ domain, files }, { network }) => {
    const closed = files.filter(({ resource: { headers, protocol } }) =>
      /^http\/1/.test(protocol) ? /\bclose\b/i.test(headers.connection ?? '') : false,
    );
    const byPage = filesByPage(closed);
    const most = Math.max(0, ...byPage.values());
    if (most < 2) return undefined;
    const time = roundsOf(most - 1) * network.latency;
    const data = { domain, files: closed.length, most, time, network: network.name };
    return { data, bytes: null, time, pages: [...byPage.keys()] };
  },
  describe: ({ domain, files, most, time: taken, network }, { count, time }) =>
    `${domain} closes the connection after ${count(files, 'file')}; a page is sent up to ${most} of them (${time(taken)} on the line ${network})`,
});
