import { kite } from './kites.js';
import { lights } from './light.js';
import type { LightName } from './light.js';
import { crowd, maker } from './people.js';
import { between, pick } from './random.js';
import type { Random } from './random.js';
import { frame, grass, headland, ridge, sand, sea, stars, sun, svg } from './scenery.js';

/** A painted scene: shapes as SVG over a sky, and how cloudy that sky is. */
export interface Scene {
  /** What is in focus. */
  readonly svg: string;
  /** What lies behind it out of focus: drawn small and enlarged. */
  readonly backdrop?: string;
  readonly clouds: readonly [number, number, number];
  /** Share of the height that is sky; 0 for a scene indoors. */
  readonly horizon: number;
  readonly cloudiness: number;
}

export type Painter = (random: Random, width: number, height: number, light: LightName) => Scene;

/** The bay from the sand: sky, sea, dunes, people, and kites in the air. */
export const bay: Painter = (random, width, height, lightName) => {
  const light = lights[lightName];
  const horizon = between(random, 0.52, 0.64) * height;
  const shore = horizon + height * between(random, 0.1, 0.16);
  const glow = between(random, 0.15, 0.85) * width;
  const kites = Array.from({ length: 5 + Math.floor(random() * 5) }, () =>
    kite(
      random,
      between(random, 0.06, 0.94) * width,
      between(random, 0.08, 0.62) * horizon,
      between(random, 0.07, 0.2) * height,
      shore,
    ),
  );
  return {
    svg: frame(width, height, light, horizon, [
      sun(glow, horizon, height, lightName),
      sea(random, width, horizon, shore, light),
      headland(random, width, horizon, height, lightName),
      sand(random, width, height, shore, light),
      lightName === 'night' ? stars(random, width, horizon) : '',
      ...kites,
      crowd(random, width, shore + height * 0.05, height * 0.06, 34, lightName),
      crowd(random, width, height * 0.94, height * 0.16, 12, lightName),
    ]),
    clouds: light.clouds,
    horizon: horizon / height,
    cloudiness: lightName === 'grey' ? 0.75 : 0.45,
  };
};

/** Dunes with grass, one large kite close by. */
export const dunes: Painter = (random, width, height, lightName) => {
  const light = lights[lightName];
  const horizon = between(random, 0.58, 0.7) * height;
  return {
    svg: frame(width, height, light, horizon, [
      sun(width * between(random, 0.1, 0.9), horizon, height, lightName),
      sea(random, width, horizon - height * 0.05, horizon + height * 0.04, light),
      ridge(random, width, height, horizon - height * 0.02, light.sand[0], light.sand[1]),
      grass(random, width, horizon + height * 0.06, height * 0.1, 260, lightName),
      ridge(random, width, height, horizon + height * 0.16, light.sand[0], light.sand[1]),
      grass(random, width, height * 0.97, height * 0.2, 320, lightName),
      kite(
        random,
        width * between(random, 0.25, 0.75),
        height * between(random, 0.22, 0.36),
        height * 0.34,
        height * 0.9,
      ),
      kite(random, width * between(random, 0.1, 0.9), height * 0.2, height * 0.1, horizon),
    ]),
    clouds: light.clouds,
    horizon: horizon / height,
    cloudiness: 0.5,
  };
};

/** A close look at sewn sailcloth. */
export const sailcloth: Painter = (random, width, height) => {
  const hues = [between(random, 0, 360), between(random, 0, 360), between(random, 0, 360)];
  const panels = Array.from({ length: 26 }, (_, index) => {
    const x = (index / 25 - 0.15) * width * 1.3;
    const lean = between(random, -0.12, 0.2) * width;
    const hue = hues[index % 3]!;
    return `<path d="M${x} 0 h${width * 0.09} L${x + lean + width * 0.08} ${height} H${x + lean - width * 0.02}Z" fill="hsl(${hue} ${between(random, 45, 72)}% ${between(random, 38, 66)}%)"/><path d="M${x} 0 L${x + lean} ${height}" stroke="#fff" stroke-opacity=".55" stroke-width="3" stroke-dasharray="14 9" fill="none"/>`;
  });
  const folds = Array.from({ length: 9 }, () => {
    const x = random() * width;
    return `<ellipse cx="${x}" cy="${random() * height}" rx="${width * 0.09}" ry="${height * 0.8}" fill="url(#${pick(random, ['shade', 'shine'])})" transform="rotate(${between(random, -30, 30)} ${x} ${height / 2})"/>`;
  });
  const soft = (id: string, colour: string) =>
    `<radialGradient id="${id}"><stop stop-color="${colour}" stop-opacity=".3"/><stop offset="1" stop-color="${colour}" stop-opacity="0"/></radialGradient>`;
  return {
    svg: svg(
      width,
      height,
      `${soft('shade', '#000')}${soft('shine', '#fff')}<rect width="100%" height="100%" fill="hsl(${hues[0]} 50% 50%)"/>${panels.join('')}${folds.join('')}`,
    ),
    clouds: [255, 255, 255],
    horizon: 0,
    cloudiness: 0,
  };
};

/** A maker in the workshop: window light, rolls of cloth, somebody at work. */
export const workshop: Painter = (random, width, height) => {
  const hue = between(random, 0, 360);
  const unit = height / 100;
  const rolls = Array.from({ length: 16 }, (_, index) => {
    const x = (index + 0.5) * (width / 16);
    const top = between(random, 8, 26) * unit;
    return `<rect x="${x - width / 40}" y="${top}" width="${width / 20}" height="${60 * unit}" rx="${width / 60}" fill="hsl(${hue + index * 47} ${between(random, 30, 60)}% ${between(random, 34, 62)}%)"/><rect x="${x - width / 90}" y="${top}" width="${width / 140}" height="${60 * unit}" fill="#fff" fill-opacity=".18"/>`;
  });
  const window = `<rect x="${width * 0.04}" width="${width * 0.3}" height="${height * 0.7}" fill="#fff4d6" fill-opacity=".5"/>`;
  const bench = `<rect y="${86 * unit}" width="100%" height="${14 * unit}" fill="#6b4a30"/><rect y="${86 * unit}" width="100%" height="${1.5 * unit}" fill="#d8b07c" fill-opacity=".7"/>`;
  const at = width * between(random, 0.38, 0.5);
  return {
    backdrop: svg(
      width,
      height,
      `<rect width="100%" height="100%" fill="hsl(${hue + 40} 28% 30%)"/>${rolls.join('')}${window}`,
    ),
    svg: svg(
      width,
      height,
      `${maker(random, at, unit, hue)}${kite(random, width * 0.82, height * 0.34, height * 0.34, height)}${bench}`,
    ),
    clouds: [255, 240, 210],
    horizon: 0,
    cloudiness: 0,
  };
};
