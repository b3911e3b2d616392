import { describe, expect, it } from 'vitest';
import { withLookups } from '../../src/browser/load/lookups.js';
import { pageRequest } from '../support/page-request.js';

describe('withLookups', () => {
  const reach = { lookupTimeOf: (url: string) => (url.includes('kites') ? 30 : 0) };
  const phases = { blocked: 0, dns: 0, connect: 50, tls: 10, send: 0, wait: 5, receive: 1 };

  it('takes a lookup out of the first connection to its host, and of no other', () => {
    const urls = ['http://kites.test/', 'http://kites.test/a.jpg', 'http://bay.test/b.jpg'];
    const requests = urls.map((url) => pageRequest(url, { phases }));
    const split = withLookups(requests, reach).map((one) => [one.phases.dns, one.phases.connect]);
    expect(split).toEqual([
      [30, 20],
      [0, 50],
      [0, 50],
    ]);
  });

  it('leaves connections that were there, and lookups that the browser made', () => {
    const open = pageRequest('http://kites.test/', { phases: { ...phases, connect: 0 } });
    const known = pageRequest('http://kites.test/', { phases: { ...phases, dns: 4 } });
    expect(withLookups([open, known], reach)).toEqual([open, known]);
  });
});
