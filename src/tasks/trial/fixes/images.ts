import type { Fix } from './fix.js';
import { refitFiles } from './refit-files.js';

export const images: Fix = {
  name: 'images',
  title: 'refitted files in place of the originals',
  unit: 'file',
  isOfBytes: true,
  isUsual: ({ refit }) => refit !== null,
  apply: async (recording, tools) => {
    if (!tools.refit)
      return { recording, changed: 0, notes: ['needs a refit: give its folder with --refit'] };
    const { replaced, added, other } = await refitFiles(recording, tools.refit, tools.keep);
    // A file may take the place of its original under the same name.
    const fresh = new Set(added.map(({ request }) => request.url));
    const responses = recording.responses
      .map((response) => replaced.get(response) ?? response)
      .filter(({ request }) => !fresh.has(request.url));
    return {
      recording: { ...recording, responses: [...responses, ...added] },
      changed: replaced.size,
      notes: [
        ...(other > 0
          ? [
              other === 1
                ? '1 image has changed since the survey of the refit, and stays as it is'
                : `${other} images have changed since the survey of the refit, and stay as they are`,
            ]
          : []),
        ...(replaced.size === 0 && other === 0
          ? ['the page shows no image that the refit has a file for: is it the refit of this site?']
          : []),
      ],
    };
  },
};
