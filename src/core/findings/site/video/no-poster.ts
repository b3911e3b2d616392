import { pageFinding } from '../site-case.js';

/** A film without a picture to stand in for it. */
export const noPoster = pageFinding({
  id: 'no-poster',
  title: 'video without a poster',
  doer: 'content',
  fix: 'Give the video a poster: a picture of its first frame, in the size of its box.',
  isWork: true,
  docs: {
    meaning: 'A video that is shown has no poster.',
    why: 'Its box stays empty until enough of the film has come, and the browser loads some of it to show anything.',
    computed: 'By the video elements of the page that have a box.',
    ignore: 'Where the box is meant to be empty at first.',
  },
  checkPage: ({ loads }) => {
    const videos = loads.flatMap(({ parts }) => parts.videos);
    const bare = videos.filter(({ hasPoster, width, height }) => !hasPoster && width * height > 0);
    return [...new Map(bare.map((video) => [video.selector, video])).values()].map(
      ({ selector, url }) => ({ data: { selector, video: url }, bytes: null, together: selector }),
    );
  },
  step: ({ selector }) => `give ${selector} a poster`,
  describe: ({ selector, video }) => `${selector} (${video}) has no poster`,
});
