import { hostOf } from '../../../address/address.js';
import { groupBy } from '../../../base/group-by.js';
import { roundsOf } from '../line.js';
import { hasCome, pageFinding } from '../site-case.js';

/** What is larger than this, in bytes on the wire, is worth a request of its own. */
const small = 20_000;
/** Over HTTP/2 files share a connection: it takes many until joining them pays. */
const manyShared = 20;

/** Many small style sheets or scripts of one host that could be one file. */
export const manyFiles = pageFinding({
  id: 'many-files',
  title: 'many small style sheets or scripts',
  doer: 'markup',
  fix: 'Join the style sheets to one file, and the scripts to one, in the order in which they are loaded.',
  isWork: true,
  docs: {
    meaning:
      'A page loads more small style sheets, or scripts, from one host than its connections carry at a time: over 6 by HTTP/1.1, 20 and more by HTTP/2.',
    why: 'Over HTTP/1.1 they wait in line for six connections; over HTTP/2 each still has its headers, and compresses by itself.',
    computed:
      'Files up to 20 kB on the wire. The time is a round trip on the line mobile for each six files after the first six, over HTTP/1.1; over HTTP/2 it is none. The bytes are those of the headers of all but one response.',
    ignore: 'Where the files change at different times, or pages need few of them.',
  },
  checkPage: ({ files }, { network }) => {
    const some = files.filter(
      ({ resource }) =>
        (resource.type === 'style' || resource.type === 'script') &&
        hasCome(resource) &&
        !resource.thirdParty &&
        resource.transferBytes <= small,
    );
    const rows = groupBy(some, ({ resource: { type, url } }) => `${type} ${hostOf(url)}`);
    return [...rows].flatMap(([key, list]) => {
      const isOld = list.every(({ resource }) => /^http\/1/.test(resource.protocol));
      const rounds = roundsOf(list.length) - 1;
      if (isOld ? rounds === 0 : list.length < manyShared) return [];
      const headerBytes = list
        .slice(1)
        .reduce((sum, { resource: one }) => sum + one.transferBytes - one.wireBytes, 0);
      const time = isOld ? rounds * network.latency : 0;
      const [first] = list;
      const data = {
        kind: first!.resource.type === 'style' ? ('style sheets' as const) : ('scripts' as const),
        host: hostOf(first!.resource.url),
        count: list.length,
        protocol: first!.resource.protocol,
        timeHttp1: rounds * network.latency,
        timeHttp2: 0,
        headerBytes,
        network: network.name,
        files: list.slice(0, 100).map(({ resource }) => resource.url),
      };
      return [{ data, bytes: headerBytes, time, together: key }];
    });
  },
  step: ({ count, kind }) => `join the ${count} ${kind} to one file`,
  describe: ({ kind, host, count, timeHttp1, headerBytes, network }, { time, bytes }) =>
    `loads ${count} small ${kind} from ${host}; one file would save ${bytes(headerBytes)} of headers, and ${time(timeHttp1)} over HTTP/1.1 on the line ${network} (over HTTP/2 hardly any time)`,
});
