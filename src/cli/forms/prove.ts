import type { Proof } from '../../core/refit/markup/proof.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of a proof. */
export const proveForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/prove.js')).drawProof,
  },
  json: jsonForm(async () => (await import('../../output/json/prove.js')).proofDocument),
} satisfies Forms<Proof>;
