import sharp from 'sharp';
import { film } from '../film.js';
import type { Sin } from '../sin.js';

/** An animation of coloured noise: ten frames, over 50 kB. */
async function drawAnimation(frames: number): Promise<Buffer> {
  const [width, height] = [160, 120];
  const pixels = Buffer.alloc(width * height * frames * 3);
  for (let at = 0, value = 7; at < pixels.length; at++) {
    value = (value * 1_103_515_245 + 12_345) % 2_147_483_648;
    pixels[at] = value >> 16;
  }
  const raw = { width, height: height * frames, channels: 3 as const, pageHeight: height };
  return sharp(pixels, { raw }).gif({ loop: 0 }).toBuffer();
}

const [animation, still] = [drawAnimation(10), drawAnimation(1)];
const poster =
  '<svg xmlns="http://www.w3.org/2000/svg" width="16" height="9"><rect width="16" height="9"/></svg>';

export const videoSins: readonly Sin[] = [
  {
    finding: 'animated-gif',
    fault: 'an animation as a GIF',
    parts: (place, isMended) => {
      const url = place.file('windsock.gif');
      return {
        body: `<img src="${url}" alt="A windsock" width="160" height="120">`,
        files: { [url]: { type: 'image/gif', body: isMended ? still : animation } },
      };
    },
  },
  {
    finding: 'large-video',
    fault: 'a film of 1280 × 720 px that plays by itself in a small box',
    parts: (place, isMended) => {
      const [url, picture] = [place.file('bay.webm'), place.file('bay.svg')];
      const size = isMended ? 'width="960" height="540"' : 'width="240" height="135"';
      return {
        body: `<video id="bay" src="${url}" poster="${picture}" ${size} autoplay muted loop playsinline></video>`,
        files: {
          [url]: { type: 'video/webm', body: film },
          [picture]: { type: 'image/svg+xml', body: poster },
        },
      };
    },
  },
  {
    finding: 'no-poster',
    fault: 'a film without a poster',
    parts: (place, isMended) => {
      const [url, picture] = [place.file('dune.webm'), place.file('dune.svg')];
      const shown = isMended ? ` poster="${picture}"` : '';
      return {
        body: `<video id="dune" src="${url}" width="320" height="180" preload="metadata" controls${shown}></video>`,
        files: {
          [url]: { type: 'video/webm', body: film },
          [picture]: { type: 'image/svg+xml', body: poster },
        },
      };
    },
  },
];
