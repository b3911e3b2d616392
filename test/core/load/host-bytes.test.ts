import { describe, expect, it } from 'vitest';
import { bytesByHost } from '../../../src/core/load/host-bytes.js';
import { bytesByType, totalBytes } from '../../../src/core/load/request.js';
import { pageRequest } from '../../support/page-request.js';

describe('weighHosts', () => {
  it('adds up to the weight of the load, its own party first', () => {
    const third = { thirdParty: true };
    const requests = [
      pageRequest('http://tags.test/a.js', { ...third, transferBytes: 9_000 }),
      pageRequest('http://bay.test/', { transferBytes: 10 }),
      pageRequest('http://img.bay.test/a.jpg', { transferBytes: 500 }),
      pageRequest('http://tags.test/b.gif', { ...third, transferBytes: 1 }),
      pageRequest('http://cdn.test/c.gif', { ...third, transferBytes: 20_000 }),
    ];
    const hosts = bytesByHost(requests);
    expect(hosts.map(({ host, requests: asked }) => [host, asked])).toEqual([
      ['img.bay.test', 1],
      ['bay.test', 1],
      ['cdn.test', 1],
      ['tags.test', 2],
    ]);
    const sum = hosts.reduce((all, { bytes }) => all + bytes, 0);
    expect(sum).toBe(totalBytes(bytesByType(requests)));
  });
});
