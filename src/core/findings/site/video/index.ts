import { animatedGif } from './animated-gif.js';
import { largeVideo } from './large-video.js';
import { noPoster } from './no-poster.js';

/** Findings on films, and on what should be one. */
export const videoFindings = [animatedGif, largeVideo, noPoster] as const;
