import { conditionsLine } from '../../core/visitors/conditions.js';
import { PageError } from '../../core/base/errors.js';
import { chooseRequests } from '../../core/load/request-view.js';
import type { ClockView } from '../../output/views/clock.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of sessions. */
export const clockForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/clock.js')).drawClock,
  },
  json: jsonForm(async () => (await import('../../output/json/clock.js')).clockDocument),
  csv: {
    describe: 'Print the requests as CSV',
    print: async () => (await import('../../output/csv/requests.js')).clockCsv,
  },
  svg: { describe: 'Draw the waterfall into this SVG file', draw: waterfalls },
  png: {
    describe: 'Draw the waterfall into this PNG file',
    draw: async (view) => rasterised(await waterfalls(view)),
  },
  film: {
    describe: 'Film one extra load, and draw it into this PNG (or SVG) file',
    draw: async (view, file) => {
      const films = await filmPictures(view);
      return /\.svg$/i.test(file) ? films : rasterised(films);
    },
  },
} satisfies Forms<ClockView>;

async function waterfalls({ sessions, choice }: ClockView): Promise<string[]> {
  const { waterfallSvg } = await import('../../output/svg/waterfall.js');
  return sessions.map(({ session, medianRun }) =>
    waterfallSvg({
      title: session.page,
      subtitle: conditionsLine(session.conditions),
      markers: medianRun.markers,
      chosen: chooseRequests(medianRun.requests, choice),
    }),
  );
}

/** @throws PageError when nothing was filmed. */
async function filmPictures({ sessions }: ClockView): Promise<string[]> {
  const { filmSvg } = await import('../../output/svg/film.js');
  const filmed = sessions.flatMap(({ session, film, medianRun }) =>
    film ? [{ session, film, medianRun }] : [],
  );
  if (filmed.length === 0)
    throw new PageError('nothing was filmed: the page could not be loaded once more', {
      hint: 'run clock again',
    });
  return filmed.map(({ session, film }) =>
    filmSvg({ title: session.page, conditions: conditionsLine(session.conditions), film }),
  );
}

/** SVG pictures as PNG. */
export async function rasterised(pictures: readonly string[]): Promise<Buffer[]> {
  const { rasterise } = await import('../../images/rasterise.js');
  return Promise.all(pictures.map((picture) => rasterise(picture)));
}
