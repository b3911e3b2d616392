import { describe, expect, it } from 'vitest';
import { shortestConnects, shortestWaits } from '../../../src/core/trial/shortest-times.js';
import { pageRequest } from '../../support/page-request.js';

const waited = (path: string, wait: number, more: { method?: string; status?: number } = {}) =>
  pageRequest(`http://a.test/${path}`, { ...more, phases: { wait } });

describe('the shortest wait', () => {
  it('is that of all loads, request by request', () => {
    const first = [waited('', 20), waited('a.jpg', 300), waited('b.jpg', 5)];
    const loads = [
      [waited('', 8), waited('b.jpg', 40), waited('a.jpg', 60)],
      [waited('', 12), waited('a.jpg', 90), waited('b.jpg', 7)],
    ];
    expect(shortestWaits(first, loads)).toEqual([8, 60, 5]);
  });

  it('is not known of what no other load asked for, or was sent something else for', () => {
    const first = [waited('?at=1', 20), waited('form', 20, { method: 'POST' }), waited('x', 20)];
    const loads = [[waited('?at=2', 1), waited('form', 1), waited('x', 1, { status: 503 })]];
    expect(shortestWaits(first, loads)).toEqual([null, null, null]);
    expect(shortestWaits(first, [])).toEqual([null, null, null]);
  });

  it('tells requests for one address apart by their turn', () => {
    const first = [waited('count', 30), waited('count', 500)];
    expect(shortestWaits(first, [[waited('count', 40), waited('count', 400)]])).toEqual([30, 400]);
  });
});

describe('the shortest connection', () => {
  it('is that to each host over all loads, however busy the machine was in one of them', () => {
    const opened = (url: string, connect: number) => pageRequest(url, { phases: { connect } });
    const loads = [
      [opened('http://a.test/', 12), opened('http://a.test/a.jpg', 0), opened('http://b.test/', 0)],
      [opened('http://a.test/', 2), opened('http://a.test/a.jpg', 5)],
    ];
    expect([...shortestConnects(loads)]).toEqual([['a.test', 2]]);
  });
});
