import type { RoundView } from '../../output/views/round.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of a round of a watch. */
export const roundForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/round.js')).drawRound,
  },
  json: jsonForm(async () => (await import('../../output/json/round.js')).roundDocument),
} satisfies Forms<RoundView>;
