import type { FleetView } from '../views/fleet.js';

/** Who works on what, as the document `zealous-lynx.fleet/1`; times in minutes. */
export function fleetDocument({ surveys, workers }: FleetView) {
  return {
    format: 'zealous-lynx.fleet/1',
    surveys: surveys.map(({ minutes, minutesLeft, ...survey }) => ({
      ...survey,
      minutes: rounded(minutes),
      minutesLeft: minutesLeft === null ? null : rounded(minutesLeft),
    })),
    workers,
  };
}

function rounded(minutes: number): number {
  return Math.round(minutes * 10) / 10;
}
