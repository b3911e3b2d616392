import { hostOf } from '../../../address/address.js';
import { pageFinding } from '../site-case.js';

/** Hosts that a page may need early; each more is another connection to open. */
const allowed = 4;

/** Many hosts that a page needs before it can be drawn and used. */
export const manyHosts = pageFinding({
  id: 'many-hosts',
  title: 'many hosts needed early',
  doer: 'markup',
  fix: 'Serve style sheets, scripts and fonts from the site’s own host, or preconnect to the few that matter.',
  isWork: true,
  docs: {
    meaning:
      'The document, style sheets, fonts and scripts that stand in the document come from more than four hosts.',
    why: 'Each host is looked up and connected to: three round trips before its first byte over TLS.',
    computed:
      'By the hosts of style sheets, fonts, and scripts that no script loaded. The time is that of one connection on the line mobile: the hosts are connected to at the same time.',
    ignore: 'Where the files of the others come late and nothing waits for them.',
  },
  checkPage: ({ files }, { network }) => {
    const early = files.filter(
      ({ resource: { type, initiator } }) =>
        type === 'html' ||
        type === 'style' ||
        type === 'font' ||
        (type === 'script' && initiator !== 'script'),
    );
    const hosts = [...new Set(early.map(({ resource }) => hostOf(resource.url)))];
    if (hosts.length <= allowed) return [];
    const isSecure = early.some(({ resource }) => resource.url.startsWith('https:'));
    const time = (isSecure ? 3 : 2) * network.latency;
    const data = { count: hosts.length, hosts: hosts.slice(0, 20), time, network: network.name };
    return [{ data, bytes: null, time }];
  },
  step: ({ hosts }) => `serve from one host what comes from ${hosts.slice(1).join(', ')}`,
  describe: ({ count: needed, hosts, time: taken, network }, { time }) =>
    `needs ${needed} hosts early (${hosts.join(', ')}); connecting takes ${time(taken)} on the line ${network}`,
});
