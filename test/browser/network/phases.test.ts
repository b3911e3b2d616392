import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { phasesOf } from '../../../src/browser/network/phases.js';

const none = {
  dnsStart: -1,
  dnsEnd: -1,
  connectStart: -1,
  connectEnd: -1,
  sslStart: -1,
  sslEnd: -1,
};

describe('phasesOf', () => {
  it('cuts a request over a new connection', () => {
    const timing = {
      requestTime: 10.02,
      ...{ dnsStart: 5, dnsEnd: 15, connectStart: 15, connectEnd: 75, sslStart: 35, sslEnd: 75 },
      ...{ sendStart: 75, sendEnd: 76, receiveHeadersEnd: 176 },
    };
    const phases = phasesOf(10, 10.5, timing);
    const rounded = Object.fromEntries(
      Object.entries(phases).map(([name, value]) => [name, Math.round(value)]),
    );
    expect(rounded).toEqual({
      blocked: 25,
      dns: 10,
      connect: 20,
      tls: 40,
      send: 1,
      wait: 100,
      receive: 304,
    });
  });

  it('counts all of a request without timing as wait', () => {
    expect(phasesOf(1, 1.25, undefined)).toMatchObject({ wait: 250, blocked: 0, receive: 0 });
  });

  it('adds up to the whole, and no phase is negative, whatever the browser reports', () => {
    const time = fc.double({ min: -5, max: 5000, noNaN: true });
    const timing = fc.record({
      requestTime: fc.double({ min: 9, max: 12, noNaN: true }),
      ...{ dnsStart: time, dnsEnd: time, connectStart: time, connectEnd: time },
      ...{ sslStart: time, sslEnd: time, sendStart: time, sendEnd: time, receiveHeadersEnd: time },
    });
    fc.assert(
      fc.property(timing, fc.double({ min: 0, max: 4, noNaN: true }), (reported, length) => {
        const phases = Object.values(phasesOf(10, 10 + length, reported));
        expect(phases.every((phase) => phase >= 0)).toBe(true);
        const sum = phases.reduce((left, right) => left + right, 0);
        expect(sum).toBeCloseTo((10 + length - 10) * 1000, 3);
      }),
    );
  });

  it('has no phases of a connection that was used again', () => {
    const timing = { requestTime: 1, ...none, sendStart: 0, sendEnd: 1, receiveHeadersEnd: 11 };
    const phases = phasesOf(1, 1.02, timing);
    expect(phases).toMatchObject({ dns: 0, connect: 0, tls: 0, send: 1, wait: 10 });
  });
});
