import { setTimeout as after } from 'node:timers/promises';

/** The clock and timer of a pacer. */
export interface Clock {
  /** Milliseconds since some moment. */
  readonly now: () => number;
  /** Waits; returns early, without an error, when stopped. */
  readonly pause: (milliseconds: number, signal?: AbortSignal) => Promise<void>;
}

const wallClock: Clock = { now: () => performance.now(), pause };

/** Keeps requests to each server at or below its pace. */
export class Pacer {
  readonly #pace: number;
  readonly #clock: Clock;
  /** When each host may be requested again, by the clock. */
  readonly #free = new Map<string, number>();

  /** @param pace milliseconds between the beginnings of two page loads from one host */
  constructor(pace: number, clock = wallClock) {
    this.#pace = pace;
    this.#clock = clock;
  }

  /** Waits until a page may be requested; returns at once when stopped. */
  async turn(url: string, signal?: AbortSignal): Promise<void> {
    const { host } = new URL(url);
    for (;;) {
      const now = this.#clock.now();
      const free = this.#free.get(host) ?? 0;
      if (free <= now || signal?.aborted) {
        if (this.#pace > 0) this.#free.set(host, now + this.#pace);
        return;
      }
      await this.#clock.pause(free - now, signal);
    }
  }

  /** Sends a host no requests for so many milliseconds, as it asked. */
  leaveAlone(url: string, milliseconds: number): void {
    const { host } = new URL(url);
    const free = this.#clock.now() + milliseconds;
    this.#free.set(host, Math.max(free, this.#free.get(host) ?? 0));
  }
}

/** Waits; returns early, without an error, when stopped. */
export async function pause(milliseconds: number, signal?: AbortSignal): Promise<void> {
  await after(milliseconds, undefined, { signal }).catch(() => {});
}

/**
 * Milliseconds that a `Retry-After` asks to wait (RFC 9110, section 10.2.3: seconds, or a date), or
 * `null` when it says nothing that can be understood.
 *
 * @param now milliseconds since 1970, for dates
 */
export function retryAfterOf(value: string | undefined, now: number): number | null {
  if (value === undefined) return null;
  if (/^\d{1,9}$/.test(value.trim())) return Number(value) * 1000;
  const date = Date.parse(value);
  return Number.isNaN(date) ? null : Math.max(0, date - now);
}
