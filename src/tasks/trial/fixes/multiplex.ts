import { hostOf } from '../../../core/address/address.js';
import type { Fix } from './fix.js';

export const multiplex: Fix = {
  name: 'http2',
  title: 'hosts with TLS speak HTTP/2',
  unit: 'host',
  isOfBytes: false,
  isUsual: () => false,
  apply: (recording) => {
    const addresses = recording.responses.map(({ request }) => request.url);
    const secure = new Set(addresses.filter((url) => url.startsWith('https:')).map(hostOf));
    const plain = new Set(addresses.filter((url) => url.startsWith('http:')).map(hostOf));
    const fresh = [...secure].filter((host) => !recording.multiplexed.has(host));
    const over = (hosts: readonly string[]) =>
      addresses.filter((url) => url.startsWith('https:') && hosts.includes(hostOf(url)));
    const without = [...plain].filter((host) => !secure.has(host));
    return Promise.resolve({
      recording: { ...recording, multiplexed: new Set([...recording.multiplexed, ...secure]) },
      changed: fresh.length,
      requests: () => new Map(over(fresh).map((url) => [url, { isMultiplexed: true }] as const)),
      notes:
        without.length > 0
          ? [`browsers speak HTTP/2 over TLS only, and ${without.join(', ')} has none`]
          : [],
    });
  },
};
