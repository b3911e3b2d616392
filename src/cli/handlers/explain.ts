import { UsageError } from '../../core/base/errors.js';
import { fixOf } from '../../core/refit/fix.js';
import { imageStoryDocument, pageStoryDocument } from '../../output/json/explain.js';
import { slotCurveSvg } from '../../output/svg/slot-curve.js';
import { drawImage, drawPage } from '../../output/terminal/explain.js';
import { writeResult } from '../write-result.js';
import type { Handler } from '../command.js';
import type { schema } from '../commands/explain.js';

export const handler: Handler<typeof schema> = async (
  { workspace: folder, survey, what, top: rows, svg },
  { policy },
  io,
) => {
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
};
