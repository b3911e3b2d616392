import { object, string } from 'yup';
import { UsageError } from '../../core/errors.js';
import { fixOf } from '../../core/fix.js';
import { imageStoryDocument, pageStoryDocument } from '../../output/json/explain.js';
import { slotCurveSvg } from '../../output/svg/slot-curve.js';
import { drawImage, drawPage } from '../../output/terminal/explain.js';
import { defineCommand } from '../command.js';
import { writeResult } from '../write-result.js';
import { shared } from '../common-options.js';

const top = shared.top(12, 'placements, or images of a page');

export const explainCommand = defineCommand({
  call: 'explain <what>',
  describe: 'Tell everything that is known of one image or page, and what to do',
  positionals: { what: 'An address or path, a content hash, or a selector' },
  options: {
    survey: shared.survey.option,
    top: top.option,
    svg: {
      describe: "Write the image's slot curve as an SVG picture to this file",
      type: 'string',
      requiresArg: true,
    },
  },
  schema: object({
    what: string().defined().min(1, 'an address, a content hash or a selector'),
    survey: shared.survey.check,
    top: top.check,
    svg: string().min(1, 'the path of a file'),
  }),
  examples: [
    ['explain /img/hero.jpg', 'an image, by its path'],
    ['explain 3fa9c1d0', 'an image, by the beginning of its content hash'],
    ["explain '#hero > img' --svg hero.svg", 'what an element shows, with its slot curve'],
    ['explain /journal/', 'a page: its weight, and its images in order'],
  ],
  run: async ({ workspace: folder, survey, what, top: rows, svg }, { policy }, io) => {
    const { screen, task, print } = io;
    const { Workspace } = await import('../../store/workspace.js');
    const { explain } = await import('../../tasks/explain.js');
    const workspace = Workspace.openExisting(folder);
    try {
      const found = await explain(workspace, survey, what, policy, task);
      const { sheet } = found;
      if (found.kind === 'page') {
        if (svg !== undefined)
          throw new UsageError('a page has no slot curve to be drawn', {
            hint: 'name an image, or leave --svg out',
          });
        print(
          () => drawPage(found.story, sheet, rows, screen),
          () => pageStoryDocument(sheet, found.story),
        );
        return 0;
      }
      const { image, others } = found;
      const fix = fixOf(image, policy.widths);
      if (svg !== undefined) {
        if (!fix.curve)
          throw new UsageError('there is no slot curve of it: no page that was swept shows it', {
            hint: 'leave --svg out',
          });
        const picture = {
          title: image.url,
          pieces: fix.curve,
          views: sheet.survey.views,
          density: policy.density,
          intrinsic: image.file.intrinsic?.width ?? null,
        };
        await writeResult(svg, slotCurveSvg(picture), '--svg');
      }
      print(
        () => drawImage({ image, others, sheet, fix }, rows, screen),
        () => imageStoryDocument(sheet, image, others, fix),
      );
      return task.signal.aborted ? 130 : 0;
    } finally {
      workspace.close();
    }
  },
});
