import { pageFinding } from '../site-case.js';

/** How many times the pixels of its box a film may have: room for dense screens. */
const allowed = 2.5;

/** A film with many more pixels than its box has. */
export const largeVideo = pageFinding({
  id: 'large-video',
  title: 'autoplaying video larger than its box',
  doer: 'content',
  fix: 'Offer the film in the size of its box; to phones in a smaller one (source with media).',
  isWork: true,
  docs: {
    meaning:
      'A video that plays by itself has more than two and a half times the pixels of the box that it is shown in.',
    why: 'It begins to load with the page, and takes the line from everything else.',
    computed:
      'The pixels of the film against those of its box in the view where that is the largest. How much smaller the file would be is not known.',
    ignore: 'Where visitors open it to the whole screen.',
  },
  checkPage: ({ loads }) => {
    const videos = loads.flatMap(({ parts }) => parts.videos).filter(({ autoplay }) => autoplay);
    return [...new Set(videos.map(({ url }) => url))].flatMap((url) => {
      const [largest] = videos
        .filter((video) => video.url === url)
        .toSorted((a, b) => b.width * b.height - a.width * a.height);
      const { selector, width, height, naturalWidth, naturalHeight } = largest!;
      if (width * height === 0 || naturalWidth * naturalHeight <= allowed * width * height)
        return [];
      const pixels = { width: naturalWidth, height: naturalHeight };
      return [
        {
          data: { video: url, selector, box: { width, height }, pixels },
          bytes: null,
          together: url,
        },
      ];
    });
  },
  step: ({ box }) => `offer it in ${box.width} × ${box.height} px or little more`,
  describe: ({ video, box, pixels }) =>
    `plays ${video} of ${pixels.width} × ${pixels.height} px by itself in a box of ${box.width} × ${box.height} px`,
});
