import { imageFinding } from './image-case.js';

export const placedNowhere = imageFinding({
  id: 'placed-nowhere',
  title: 'fetched, but not shown by any element',
  doer: null,
  fix: 'Find out what fetches it: a preload, a script that draws it, or nothing that is still needed.',
  isWork: false,
  docs: {
    meaning: 'A file is fetched, and no element shows it.',
    why: 'Its bytes are for nothing, or a script draws it.',
    computed: 'By all placements of the survey.',
    ignore: 'Where a script draws it on a canvas.',
  },
  check: ({ placements }) => (placements.length > 0 ? undefined : {}),
  describe: () =>
    'is fetched, but no element shows it: it is preloaded, drawn by a script, or not used',
});
