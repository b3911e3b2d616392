import type { GateView } from '../../output/views/gate.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** A gate, with the file that its budgets are in. */
export type ConfiguredGate = GateView & { readonly config: string };

/** The forms of a gate. */
export const gateForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/gate.js')).drawGate,
  },
  json: jsonForm(async () => (await import('../../output/json/gate.js')).gateDocument),
  markdown: {
    describe: 'Print the body of a comment in a code review, as Markdown',
    print: async () => (await import('../../output/markdown/gate.js')).gateMarkdown,
  },
  annotations: {
    describe: 'Print one line for each budget that does not hold, as compilers write errors',
    print: async () => (await import('../../output/words/annotations.js')).gateAnnotations,
  },
  junit: {
    describe: 'Write test results as JUnit XML into this file',
    draw: async (view) => {
      const { gateJunit } = await import('../../output/xml/junit.js');
      return [`${gateJunit(view)}\n`];
    },
  },
} satisfies Forms<ConfiguredGate>;
