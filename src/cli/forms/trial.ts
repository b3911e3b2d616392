import { PageError } from '../../core/base/errors.js';
import { conditionsLine } from '../../core/visitors/conditions.js';
import type { TrialView } from '../../output/views/trial.js';
import type { TriedPage } from '../../tasks/trial/trial-options.js';
import { rasterised } from './clock.js';
import { drawLooks, waterfalls } from './compare.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of trials. */
export const trialForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/trial.js')).drawTrial,
  },
  json: jsonForm(async () => (await import('../../output/json/trial.js')).trialDocument),
  csv: {
    describe: 'Print the numbers as CSV',
    print: async () => (await import('../../output/csv/compare.js')).compareCsv,
  },
  markdown: {
    describe: 'Print the fixes and the numbers as Markdown tables, for a ticket',
    print: async () => (await import('../../output/markdown/trial.js')).trialMarkdown,
  },
  svg: { describe: 'Draw both waterfalls into this SVG file', draw: waterfalls },
  png: {
    describe: 'Draw both waterfalls into this PNG file',
    draw: async (view) => rasterised(await waterfalls(view)),
  },
  looks: {
    describe: 'Draw the page before, after, and what differs into this PNG file',
    draw: drawLooks,
  },
  film: {
    describe: 'Film one extra load of each side, and draw both into this PNG (or SVG) file',
    draw: async (view, file) => {
      const films = await filmPictures(view);
      return /\.svg$/i.test(file) ? films : rasterised(films);
    },
  },
} satisfies Forms<TrialView<TriedPage>>;

/** @throws PageError when nothing was filmed. */
async function filmPictures({ pages }: TrialView<TriedPage>): Promise<string[]> {
  const { filmPairSvg } = await import('../../output/svg/film-pair.js');
  const filmed = pages.flatMap((page) => {
    const [before, after] = page.films;
    return before && after ? [{ page, before, after }] : [];
  });
  if (filmed.length === 0)
    throw new PageError('nothing was filmed: the page could not be loaded once more', {
      hint: 'run trial again',
    });
  return filmed.map(({ page, before, after }) =>
    filmPairSvg({
      title: page.before.page,
      conditions: conditionsLine(page.before.conditions),
      sides: [
        { label: page.before.label, film: before },
        { label: page.after.label, film: after },
      ],
    }),
  );
}
