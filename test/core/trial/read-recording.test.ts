import { describe, expect, it } from 'vitest';
import { readHar } from '../../../src/core/load/har-reading.js';
import { readRecording } from '../../../src/core/trial/read-recording.js';
import { withBody, withHeader, headerValue } from '../../../src/core/trial/recording.js';

const entry = (url: string, more: Record<string, unknown> = {}) => ({
  startedDateTime: '2026-11-27T00:00:00.000Z',
  time: 100,
  request: { method: 'GET', url, headers: [] },
  response: {
    status: 200,
    httpVersion: 'HTTP/1.1',
    headers: [{ name: 'Content-Type', value: 'text/css' }],
    content: { size: 5_000, mimeType: 'text/css', text: 'a{}' },
    bodySize: -1,
    _transferBytes: 1_300,
    ...(more['response'] as object),
  },
  timings: { blocked: 0, dns: -1, connect: -1, send: 0, wait: 80, receive: 20 },
  ...Object.fromEntries(Object.entries(more).filter(([name]) => name !== 'response')),
});

function recordingOf(...entries: unknown[]) {
  const { pages } = readHar({ log: { version: '1.2', entries } }, () => false);
  const [{ page, run, contents }] = pages as [(typeof pages)[number]];
  const stored = run.requests.map(({ bodyBytes }) => ({ hash: 'a'.repeat(64), bytes: bodyBytes }));
  return readRecording(page, run, contents, stored);
}

describe('a recording', () => {
  it('has the time of the server without the round trip, which the opening of a connection tells', () => {
    const { responses } = recordingOf(
      entry('http://bay.test/', {
        timings: { blocked: 0, dns: -1, connect: 30, send: 0, wait: 90, receive: 0 },
      }),
      entry('http://bay.test/site.css'),
      entry('http://other.test/far.css'),
      entry('http://bay.test/timed.css', { _shortestWait: 70, _shortestConnect: 2 }),
    );
    const thinking = new Map(responses.map(({ request, thinking }) => [request.url, thinking]));
    expect(thinking.get('http://bay.test/')).toBe(60);
    expect(thinking.get('http://bay.test/site.css')).toBe(50);
    // Where several loads were timed, their shortest times count, of the connection as well.
    expect(thinking.get('http://bay.test/timed.css')).toBe(68);
    // Nothing tells how far this one is.
    expect(thinking.get('http://other.test/far.css')).toBe(80);
  });

  it('takes the bytes on the wire from the headers, or from what came over it', () => {
    const zipped = { name: 'Content-Encoding', value: 'br' };
    const { responses } = recordingOf(
      entry('http://bay.test/declared.css', {
        response: { headers: [zipped, { name: 'Content-Length', value: '1234' }] },
      }),
      entry('http://bay.test/chunked.css', { response: { headers: [zipped] } }),
      entry('http://bay.test/plain.css'),
    );
    expect(responses.map(({ wireBytes }) => wireBytes)).toEqual([
      1_234,
      1_300 - 'Content-Encoding: br\r\n'.length,
      5_000,
    ]);
    expect(responses.map(({ encoding }) => encoding)).toEqual(['br', 'br', 'identity']);
  });

  it('knows the hosts that speak HTTP/2, and what was requested by scrolling', () => {
    const recording = recordingOf(
      entry('https://bay.test/', { response: { httpVersion: 'h2' } }),
      entry('https://old.test/lazy.png', { _onScroll: true }),
    );
    expect([...recording.multiplexed]).toEqual(['bay.test']);
    expect(recording.responses.map(({ onScroll }) => onScroll)).toEqual([false, true]);
    expect(recording.run.requests.map(({ url }) => url)).toEqual(['https://bay.test/']);
  });

  it('keeps all other headers when one is set, and guesses the weight of another body', () => {
    const { responses } = recordingOf(
      entry('http://bay.test/site.css', {
        response: {
          headers: [
            { name: 'content-encoding', value: 'gzip' },
            { name: 'content-length', value: '1000' },
          ],
        },
      }),
    );
    const [response] = responses;
    const kept = withHeader(response!, 'cache-control', 'no-store');
    expect(kept.request.responseHeaders.map(({ name }) => name)).toEqual([
      'content-encoding',
      'content-length',
      'cache-control',
    ]);
    expect(
      headerValue(withHeader(kept, 'cache-control', null).request.responseHeaders, 'cache-control'),
    ).toBe('');
    expect(withBody(response!, { hash: 'b', bytes: 2_500 })).toMatchObject({
      bodyHash: 'b',
      bodyBytes: 2_500,
      wireBytes: 500,
    });
  });
});
