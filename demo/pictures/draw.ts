import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { readFile, readdir } from 'node:fs/promises';
import { extname, join } from 'node:path';
import pLimit from 'p-limit';
import sharp from 'sharp';
import { writeWhole } from '../../src/store/write-whole.js';
import { avifFilm } from './avif-film.js';
import { catalogue } from './catalogue.js';
import type { Animation, Photograph, Picture } from './catalogue.js';
import { addGrain, smoothNoise } from './noise.js';
import { seeded } from './random.js';
import type { Scene } from './scenes.js';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Scenes are painted at most this wide; a camera's size comes from enlarging, and its bytes from grain. */
const paintedWidth = 1500;

/**
 * Draws all pictures of the site that are not there yet, and says where they are.
 *
 * The folder's name holds a hash of the code that draws and of the encoder's version, so a change
 * in either makes new pictures and never mixes them with old ones.
 *
 * @param cache folder in which the pictures are kept
 * @param onPicture called after each picture that was drawn
 */
export async function drawPictures(
  cache: string,
  onPicture: (done: number, total: number) => void = () => {},
): Promise<string> {
  const folder = join(cache, `brindle-bay-${await edition()}`);
  const missing = catalogue.filter(({ path }) => !existsSync(join(folder, path)));
  const limit = pLimit(2);
  let done = 0;
  await Promise.all(
    missing.map((picture) =>
      limit(async () => {
        await writeWhole(join(folder, picture.path), await draw(picture));
        onPicture(++done, missing.length);
      }),
    ),
  );
  return folder;
}

/** The bytes of one picture; the same every time. */
export async function draw(picture: Picture): Promise<Buffer> {
  switch (picture.kind) {
    case 'photograph':
      return drawPhotograph(picture);
    case 'animation':
      return drawAnimation(picture);
    case 'drawing':
      if (extname(picture.path) === '.svg') return Buffer.from(picture.svg);
      return sharp(Buffer.from(picture.svg))
        .png({ palette: false, compressionLevel: 6 })
        .toBuffer();
  }
}

async function drawPhotograph(picture: Photograph): Promise<Buffer> {
  const { width, height, seed, paint, light, orientation } = picture;
  const factor = paintedWidth / width;
  const painted = { width: paintedWidth, height: Math.round(height * factor) };
  const scene = paint(seeded(seed), painted.width, painted.height, light);
  const shapes = { input: Buffer.from(scene.svg) };
  const layers =
    scene.horizon > 0
      ? [shapes, await clouds(scene, painted.width, painted.height, seed)]
      : [shapes];
  const flat = await sharp(await outOfFocus(scene, painted))
    .composite(layers)
    .removeAlpha()
    .raw()
    .toBuffer();
  const pixels = await sharp(flat, { raw: { ...painted, channels: 3 } })
    .resize(width, height, { kernel: factor < 1 ? 'linear' : 'lanczos3' })
    .raw()
    .toBuffer();
  addGrain(pixels, seed * 7919, light === 'night' ? 9 : 7);
  const photograph = sharp(pixels, { raw: { width, height, channels: 3 } });
  const tags = {
    IFD0: { Make: 'Marram', Model: 'Fieldglass 2', Software: 'Brindle Bay darkroom' },
  };
  if (orientation) return photograph.withMetadata({ orientation }).jpeg({ quality: 90 }).toBuffer();
  switch (extname(picture.path)) {
    case '.png':
      return photograph.png({ compressionLevel: 6 }).toBuffer();
    case '.webp':
      return photograph.webp({ quality: 92, effort: 2 }).toBuffer();
    default:
      return photograph.withExif(tags).jpeg({ quality: picture.quality }).toBuffer();
  }
}

/** What lies behind a scene: drawn at a fortieth of its size and enlarged, as a lens would blur it. */
async function outOfFocus({ backdrop }: Scene, { width, height }: Size): Promise<Buffer> {
  if (backdrop === undefined)
    return sharp({ create: { width, height, channels: 3, background: '#808080' } })
      .png()
      .toBuffer();
  const small = await sharp(Buffer.from(backdrop))
    .resize(Math.round(width / 40))
    .png()
    .toBuffer();
  return sharp(small).resize(width, height, { fit: 'fill', kernel: 'cubic' }).png().toBuffer();
}

/** A layer of clouds that thins out towards the horizon. */
async function clouds(scene: Scene, width: number, height: number, seed: number) {
  const noise = smoothNoise(seeded(seed + 5000));
  const tall = Math.round(height * scene.horizon);
  // Clouds have no fine detail: half the size is enough, enlarged with the rest.
  const small = { width: Math.ceil(width / 2), height: Math.ceil(tall / 2) };
  const pixels = Buffer.alloc(small.width * small.height * 4);
  const [red, green, blue] = scene.clouds;
  for (let y = 0; y < small.height; y++) {
    const down = y / small.height;
    for (let x = 0; x < small.width; x++) {
      const value = noise((x / small.width) * 6, down * (3 + 4 * down) + 9, 5);
      const cover = Math.max(0, (value - (1 - scene.cloudiness) + 0.06) * 3.2) * (1 - down * 0.75);
      pixels.set([red, green, blue, Math.min(235, cover * 255)], (y * small.width + x) * 4);
    }
  }
  const layer = sharp(pixels, { raw: { ...small, channels: 4 } }).resize(width, tall, {
    fit: 'fill',
  });
  return { input: await layer.png().toBuffer(), top: 0, left: 0, blend: 'soft-light' as const };
}

/** Milliseconds that a frame of an animation is shown. */
const delay = 90;

async function drawAnimation({ frames, path, width, height }: Animation): Promise<Buffer> {
  const drawn = frames.map((svg) => sharp(Buffer.from(svg)));
  // No codec writes AVIF that moves.
  if (extname(path) === '.avif') {
    const encoded = drawn.map((frame) =>
      frame.flatten().avif({ quality: 70, effort: 2 }).toBuffer(),
    );
    return avifFilm(await Promise.all(encoded), { width, height, delay });
  }
  const stills = await Promise.all(drawn.map((frame) => frame.png().toBuffer()));
  const timing = { delay: stills.map(() => delay), loop: 0 };
  const film = sharp(stills, { join: { animated: true } });
  return (extname(path) === '.webp' ? film.webp(timing) : film.gif(timing)).toBuffer();
}

async function edition(): Promise<string> {
  const hash = createHash('sha256').update(JSON.stringify(sharp.versions));
  const folder = import.meta.dirname;
  const sources = (await readdir(folder)).filter(
    (name) => /\.(js|ts)$/.test(name) && !name.endsWith('.d.ts'),
  );
  for (const name of sources.sort()) hash.update(await readFile(join(folder, name)));
  return hash.digest('hex').slice(0, 12);
}
