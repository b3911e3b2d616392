import { UsageError } from '../../core/base/errors.js';
import { conditionsLine } from '../../core/visitors/conditions.js';
import { loadsOf } from '../../output/views/compare.js';
import type { CompareView } from '../../output/views/compare.js';
import type { ComparedPage } from '../../tasks/clock/compare.js';
import { rasterised } from './clock.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of comparing sessions. */
export const compareForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/compare.js')).drawCompare,
  },
  json: jsonForm(async () => (await import('../../output/json/compare.js')).compareDocument),
  csv: {
    describe: 'Print the numbers as CSV',
    print: async () => (await import('../../output/csv/compare.js')).compareCsv,
  },
  markdown: {
    describe: 'Print the numbers as a Markdown table, for a ticket',
    print: async () => (await import('../../output/markdown/compare.js')).compareMarkdown,
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
} satisfies Forms<CompareView<ComparedPage>>;

/** Both waterfalls of each page, on one axis. */
export async function waterfalls({ pages, choice }: CompareView): Promise<string[]> {
  const { waterfallPairSvg } = await import('../../output/svg/waterfall-pair.js');
  return pages.map((page) => {
    const [before, after] = loadsOf(page, choice).map(({ session, run, chosen }) => ({
      label: `${session.label}: ${session.page}`,
      markers: run.markers,
      chosen,
    }));
    return waterfallPairSvg({
      title: `${page.before.label} and ${page.after.label}`,
      subtitle: conditionsLine(page.before.conditions),
      before: before!,
      after: after!,
      changes: page.requests,
    });
  });
}

/** @throws UsageError when no page has pictures of both sides. */
export async function drawLooks({ pages }: CompareView<ComparedPage>): Promise<Buffer[]> {
  const seen = pages.flatMap(({ looks }) => looks ?? []);
  if (seen.length === 0)
    throw new UsageError('there are no pictures of both sides to compare', {
      hint: 'clock keeps one for each cold session: run it again for both',
    });
  const { looksPicture } = await import('../../images/looks-picture.js');
  return Promise.all(
    seen.map((looks) => looksPicture(looks.pictures.before, looks.pictures.after, looks)),
  );
}
