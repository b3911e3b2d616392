import type { RefitDocumentSource } from '../../output/json/refit.js';
import type { RefitView } from '../../output/views/refit.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of a refit. */
export const refitForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/refit.js')).drawRefit,
  },
  json: jsonForm(async () => (await import('../../output/json/refit.js')).refitDocument),
} satisfies Forms<RefitView & RefitDocumentSource>;
