import { describe, expect, it } from 'vitest';
import type { Round } from '../../../src/store/rounds.js';
import { nextRound } from '../../../src/tasks/watch/schedule.js';

const hour = 3_600_000;
const now = Date.parse('2026-11-27T12:00:00.000Z');

const round = (startedAt: string, outcome: Round['outcome'] = 'done'): Round => ({
  ...{ id: 1, startedAt, finishedAt: null, outcome, words: '' },
});

describe('the next round of a watch', () => {
  it('is due at once where there was none, and where the last did not come to its end', () => {
    expect(nextRound(undefined, hour, now)).toEqual({ wait: 0, note: null });
    for (const outcome of ['running', 'stopped'] as const) {
      const { wait, note } = nextRound(round('2026-11-27T11:50:00.000Z', outcome), hour, now);
      expect(wait).toBe(0);
      expect(note).toMatch(/did not come to its end/);
    }
  });

  it('is due one interval after the last began, whoever made that', () => {
    expect(nextRound(round('2026-11-27T11:15:00.000Z'), hour, now).wait).toBe(hour / 4);
    expect(nextRound(round('2026-11-20T11:15:00.000Z', 'down'), hour, now).wait).toBe(0);
  });

  it('is due at once, and said why, when the clock went backwards', () => {
    const { wait, note } = nextRound(round('2026-12-24T00:00:00.000Z'), hour, now);
    expect(wait).toBe(0);
    expect(note).toMatch(/clock of this machine went backwards/);
  });
});
