import { roundsOf } from '../line.js';
import { serviceFinding } from '../site-case.js';
import { filesByPage } from './files-by-page.js';

/** A server that sends many files over HTTP/1.1. */
export const oldProtocol = serviceFinding({
  id: 'old-protocol',
  title: 'many files over HTTP/1.1',
  doer: 'server',
  fix: 'Serve the host over HTTP/2 or HTTP/3, which browsers use with TLS.',
  isWork: true,
  docs: {
    meaning: 'A page is sent more files over HTTP/1.1 than six connections carry at a time.',
    why: 'Each connection carries one file at a time, so that the others wait in line; HTTP/2 sends all of them at once on one.',
    computed:
      'The time is a round trip on the line mobile for each six files after the first six, on the page that has the most.',
    ignore: 'Where a network on the way, or the visitors’ own, speaks nothing else.',
  },
  step: () => 'serve it over HTTP/2 or HTTP/3',
  checkService: ({ domain, files }, { network, servedHere }) => {
    const old = files.filter(({ resource: { protocol, url } }) =>
      servedHere.has(new URL(url).host) ? false : /^http\/1/.test(protocol),
    );
    const byPage = filesByPage(old);
    const most = Math.max(0, ...byPage.values());
    const time = (roundsOf(most) - 1) * network.latency;
    if (time <= 0) return undefined;
    const pages = [...byPage].filter(([, count]) => roundsOf(count) > 1);
    const data = { domain, most, time, network: network.name };
    return { data, bytes: null, time, pages: pages.map(([page]) => page) };
  },
  describe: ({ domain, most, time: taken, network }, { time }) =>
    `${domain} sends up to ${most} files to a page over HTTP/1.1, where they wait in line for six connections (${time(taken)} on the line ${network})`,
});
