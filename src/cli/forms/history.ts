import type { HistoryView } from '../../output/views/history.js';
import { rasterised } from './clock.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

const picture = async (view: HistoryView) => {
  const { historySvg } = await import('../../output/svg/history.js');
  return [historySvg(view)];
};

/** The forms of a history. */
export const historyForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/history.js')).drawHistory,
  },
  json: jsonForm(async () => (await import('../../output/json/history.js')).historyDocument),
  csv: {
    describe: 'Print every measurement as CSV',
    print: async () => (await import('../../output/csv/history.js')).historyCsv,
  },
  svg: { describe: 'Draw the numbers over time into this SVG file', draw: picture },
  png: {
    describe: 'Draw the numbers over time into this PNG file',
    draw: async (view) => rasterised(await picture(view)),
  },
} satisfies Forms<HistoryView>;
