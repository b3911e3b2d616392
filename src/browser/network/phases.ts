import { record } from '../../core/base/record.js';
import { noPhases } from '../../core/load/request.js';
import type { Phases } from '../../core/load/request.js';

/** Resource timing as the browser's network reports it: milliseconds after `requestTime`, -1 for none. */
export interface NetworkTiming {
  /** Seconds, monotonic. */
  readonly requestTime: number;
  readonly dnsStart: number;
  readonly dnsEnd: number;
  readonly connectStart: number;
  readonly connectEnd: number;
  readonly sslStart: number;
  readonly sslEnd: number;
  readonly sendStart: number;
  readonly sendEnd: number;
  readonly receiveHeadersEnd: number;
}

/**
 * Cuts a request into its phases. They add up to `end - start`: what no other phase explains was
 * spent waiting in line, and is `blocked`.
 *
 * @param start seconds, monotonic: when the page asked for it
 * @param end seconds, monotonic: when the last byte was there
 */
export function phasesOf(start: number, end: number, timing: NetworkTiming | undefined): Phases {
  const total = Math.max(0, (end - start) * 1000);
  if (!timing) return { ...noPhases, wait: total };
  const tls = span(timing.sslStart, timing.sslEnd);
  const headers = timing.requestTime * 1000 + timing.receiveHeadersEnd;
  const known = {
    dns: span(timing.dnsStart, timing.dnsEnd),
    connect: Math.max(0, span(timing.connectStart, timing.connectEnd) - tls),
    tls,
    send: span(timing.sendStart, timing.sendEnd),
    wait: Math.max(0, timing.receiveHeadersEnd - timing.sendEnd),
    receive: Math.max(0, end * 1000 - headers),
  };
  const sum = Object.values(known).reduce((left, right) => left + right, 0);
  if (sum <= total) return { blocked: total - sum, ...known };
  // Two clocks that disagree by a hair: all give way alike, so that the sum stays true.
  const factor = total / sum;
  return { blocked: 0, ...record(knownPhases, (name) => known[name] * factor) };
}

const knownPhases = ['dns', 'connect', 'tls', 'send', 'wait', 'receive'] as const;

function span(start: number, end: number): number {
  return start < 0 || end < start ? 0 : end - start;
}
