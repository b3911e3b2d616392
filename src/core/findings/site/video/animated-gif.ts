import { fileFinding, leastSaved } from '../site-case.js';

/** Bytes up to which an animation is a small ornament. */
const small = 50_000;
/** Bits that a film of today needs for a pixel of a frame: a rule of thumb of streaming, which suits simple pictures. */
const bitsPerPixel = 0.1;

/** An animation in a format that was never made for films. */
export const animatedGif = fileFinding({
  id: 'animated-gif',
  title: 'animated GIF that should be a film',
  doer: 'content',
  fix: 'Make a film of it (H.264 or AV1) and show it by a video element with autoplay, loop, muted and playsinline.',
  isWork: true,
  docs: {
    meaning: 'A GIF of more than one frame has more than 50 kB.',
    why: 'A GIF keeps each frame nearly whole, in 256 colours; a film keeps what changes, in all colours.',
    computed:
      'An estimate from its frames: 0.1 bit for each pixel of each frame. No film is made. refit makes an animated WebP of it, whose bytes are measured.',
    ignore: 'Where the place allows no video element, as in mails.',
  },
  step: () => 'make a film of it',
  checkFile: ({ resource, image }) => {
    const { url, type } = resource;
    if (type !== 'image' || image?.mediaType !== 'image/gif' || image.frames < 2) return undefined;
    const { frames, bytes, intrinsic } = image;
    if (bytes < small || !intrinsic) return undefined;
    const estimated = Math.round((intrinsic.width * intrinsic.height * frames * bitsPerPixel) / 8);
    if (bytes - estimated < leastSaved) return undefined;
    return { data: { url, frames, bytes, estimatedBytes: estimated }, bytes: bytes - estimated };
  },
  describe: ({ frames, bytes: own, estimatedBytes }, { bytes, count }) =>
    `is a GIF of ${count(frames, 'frame')} with ${bytes(own)}; a film would have about ${bytes(estimatedBytes)} (estimated from its frames)`,
});
