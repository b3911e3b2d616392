import type { FleetView } from '../../output/views/fleet.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of the state of a fleet. */
export const fleetForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/fleet.js')).drawFleet,
  },
  json: jsonForm(async () => (await import('../../output/json/fleet.js')).fleetDocument),
  metricsFile: {
    describe: 'With --list: write the figures as OpenMetrics into this file',
    draw: async (view) => {
      const { fleetMetrics } = await import('../../output/openmetrics/fleet.js');
      return [await fleetMetrics(view)];
    },
  },
} satisfies Forms<FleetView>;
