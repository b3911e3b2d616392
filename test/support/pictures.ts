import sharp from 'sharp';
import type { Sharp } from 'sharp';

/** A picture like a photograph: a gradient under noise that is the same every time. */
export function photograph(width: number, height: number, seed = 1): Sharp {
  const pixels = Buffer.alloc(width * height * 3);
  let state = seed;
  for (let at = 0; at < pixels.length; at += 3) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    const x = (at / 3) % width;
    const noise = (state >>> 24) / 6;
    pixels[at] = (x / width) * 180 + noise;
    pixels[at + 1] = 90 + noise;
    pixels[at + 2] = 200 - (x / width) * 120 + noise;
  }
  return sharp(pixels, { raw: { width, height, channels: 3 } });
}

/**
 * A noisy photograph that was saved as JPEG before, with a long caption: JPEG packs again what it has packed, and any other
 * format must keep all that JPEG made of the noise.
 */
export function packedPhotograph(width: number, height: number): Promise<Buffer> {
  return photograph(width, height)
    .withExif({ IFD0: { ImageDescription: 'Kites over the bay. '.repeat(300) } })
    .jpeg({ quality: 30, mozjpeg: true })
    .toBuffer();
}

/** A drawing in three flat colours. */
export function drawing(width: number, height: number): Sharp {
  return sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" shape-rendering="crispEdges"><rect width="100%" height="100%" fill="#fc0"/><rect x="20%" y="20%" width="40%" height="50%" fill="#059"/><rect x="50%" y="40%" width="30%" height="50%" fill="#e43"/></svg>`,
    ),
  );
}

/** An animation of `frames` flat frames. */
export async function animation(side: number, frames: number): Promise<Buffer> {
  const stills = await Promise.all(
    Array.from({ length: frames }, (_, index) =>
      sharp({
        create: {
          width: side,
          height: side,
          channels: 3,
          background: `hsl(${index * 40}, 80%, 50%)`,
        },
      })
        .png()
        .toBuffer(),
    ),
  );
  return sharp(stills, { join: { animated: true } })
    .gif()
    .toBuffer();
}

/** A picture of soft shapes and edges without noise, as a photograph of few things is. */
export function scene(width: number, height: number): Sharp {
  const shapes = Array.from({ length: 40 }, (_, index) => {
    const [x, y] = [(index * 37) % 100, (index * 61) % 100];
    return `<circle cx="${x}%" cy="${y}%" r="${4 + (index % 7)}%" fill="hsl(${index * 9}, 60%, ${30 + (index % 5) * 10}%)"/>`;
  });
  return sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><defs><linearGradient id="sky" y2="1"><stop stop-color="#247"/><stop offset="1" stop-color="#dec"/></linearGradient></defs><rect width="100%" height="100%" fill="url(#sky)"/>${shapes.join('')}</svg>`,
    ),
  ).blur(1.5);
}
