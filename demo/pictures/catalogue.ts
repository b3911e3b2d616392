import * as flat from './flat.js';
import type { LightName } from './light.js';
import type { Painter } from './scenes.js';
import { bay, dunes, sailcloth, workshop } from './scenes.js';

interface Common {
  /** Path below the pictures' folder, with the host's folder in front for third parties. */
  readonly path: string;
  readonly width: number;
  readonly height: number;
}

/** A picture like a photograph: painted, then covered with grain. */
export interface Photograph extends Common {
  readonly kind: 'photograph';
  readonly paint: Painter;
  readonly light: LightName;
  readonly seed: number;
  readonly quality: number;
  /** EXIF orientation that the camera left in the file. */
  readonly orientation?: 6 | 8;
}

/** A drawing with few colours. */
export interface Drawing extends Common {
  readonly kind: 'drawing';
  readonly svg: string;
}

/** An animation of drawings. */
export interface Animation extends Common {
  readonly kind: 'animation';
  readonly frames: readonly string[];
}

export type Picture = Photograph | Drawing | Animation;

function photograph(
  path: string,
  paint: Painter,
  light: LightName,
  seed: number,
  [width, height]: readonly [number, number] = [3000, 2000],
  more: Partial<Photograph> = {},
): Photograph {
  return { kind: 'photograph', path, paint, light, seed, width, height, quality: 90, ...more };
}

const banner = [2800, 1200] as const;
const portrait = [2200, 2200] as const;
const step = [0.16, 0.32, 0.64, 0.96] as const;

/** Every picture of the site. The same list gives the same bytes. */
export const catalogue: readonly Picture[] = [
  photograph('img/hero/banner-1.jpg', bay, 'noon', 11, banner),
  photograph('img/hero/banner-2.jpg', bay, 'evening', 28, banner),
  photograph('img/hero/banner-3.jpg', dunes, 'morning', 13, banner),
  photograph('img/hero/banner-4.jpg', bay, 'grey', 14, banner),
  photograph('img/hero/banner-5.jpg', bay, 'night', 15, banner),
  photograph('img/programme/IMG_0412.jpg', bay, 'morning', 21),
  photograph('img/programme/IMG_0431.jpg', dunes, 'noon', 22),
  photograph('img/programme/IMG_0477.jpg', bay, 'night', 23),
  photograph('img/site/bay-panorama.jpg', bay, 'evening', 31, [3200, 1100]),
  photograph('img/makers/oda-wrenfield.jpg', workshop, 'noon', 41, portrait),
  photograph('img/makers/tomas-quill.webp', workshop, 'noon', 42, portrait),
  photograph('img/makers/sandlark-twins.jpg', workshop, 'noon', 43, portrait),
  photograph('img/makers/ilse-marram.webp', workshop, 'noon', 48, portrait),
  photograph('img/makers/sailcloth-1.jpg', sailcloth, 'noon', 45),
  photograph('img/makers/sailcloth-2.jpg', sailcloth, 'noon', 46),
  photograph('img/journal/launch-field.png', dunes, 'noon', 51, [1500, 1000]),
  photograph('img/journal/rain-on-sunday.png', bay, 'grey', 52, [1500, 1000]),
  photograph('img/journal/the-long-tail.jpg', sailcloth, 'noon', 53, [2000, 3000], {
    orientation: 6,
  }),
  ...step.map((share) =>
    photograph(`img/journal/wind-${Math.round(3000 * share)}.jpg`, dunes, 'evening', 54, [
      3000 * share,
      2000 * share,
    ]),
  ),
  ...(['noon', 'evening', 'morning', 'grey', 'night', 'noon', 'evening', 'morning'] as const).map(
    (light, index) =>
      photograph(
        `img/gallery/DSC0${2210 + index * 7}.jpg`,
        index % 3 === 1 ? dunes : bay,
        light,
        61 + index,
      ),
  ),
  photograph('img/travel/ferry.jpg', bay, 'morning', 71, [3000, 2000]),
  {
    kind: 'drawing',
    path: 'img/travel/map.png',
    width: 2400,
    height: 1800,
    svg: flat.mapOfTheBay(2400, 1800),
  },
  {
    kind: 'drawing',
    path: 'img/site/poster.png',
    width: 1600,
    height: 2260,
    svg: flat.poster(1600, 2260),
  },
  {
    kind: 'animation',
    path: 'img/site/windsock.gif',
    width: 360,
    height: 360,
    frames: Array.from({ length: 12 }, (_, index) => flat.windsock(360, index / 12)),
  },
  photograph('img/museum/hall.jpg', workshop, 'noon', 91, [1200, 800]),
  photograph('img/museum/turned.jpg', dunes, 'morning', 92, [600, 400], { orientation: 6 }),
  {
    kind: 'drawing',
    path: 'img/museum/plate.png',
    width: 300,
    height: 200,
    svg: flat.plate(300, 200),
  },
  {
    kind: 'drawing',
    path: 'img/museum/plate-2x.png',
    width: 600,
    height: 400,
    svg: flat.plate(600, 400),
  },
  { kind: 'drawing', path: 'img/museum/attic.png', width: 40, height: 40, svg: flat.plate(40, 40) },
  { kind: 'drawing', path: 'img/museum/tile.png', width: 64, height: 64, svg: flat.plate(64, 64) },
  {
    kind: 'animation',
    path: 'img/museum/reel.gif',
    width: 120,
    height: 120,
    frames: Array.from({ length: 4 }, (_, index) => flat.windsock(120, index / 4)),
  },
  {
    kind: 'animation',
    path: 'img/museum/reel.webp',
    width: 100,
    height: 100,
    frames: Array.from({ length: 3 }, (_, index) => flat.windsock(100, index / 3)),
  },
  {
    kind: 'animation',
    path: 'img/museum/reel.avif',
    width: 96,
    height: 96,
    frames: Array.from({ length: 5 }, (_, index) => flat.windsock(96, index / 5)),
  },
  {
    kind: 'drawing',
    path: 'img/museum/spare.png',
    width: 48,
    height: 48,
    svg: flat.plate(48, 48),
  },
  {
    kind: 'drawing',
    path: 'img/museum/compass.svg',
    width: 64,
    height: 64,
    svg: flat.icon(Object.keys(flat.icons)[0]!),
  },
  { kind: 'drawing', path: 'img/site/logo.svg', width: 64, height: 64, svg: flat.logo },
  ...Object.keys(flat.icons).map((name): Drawing => ({
    kind: 'drawing',
    path: `img/icons/${name}.svg`,
    width: 64,
    height: 64,
    svg: flat.icon(name),
  })),
  {
    kind: 'drawing',
    path: 'gullpost/weather.png',
    width: 800,
    height: 400,
    svg: flat.weatherBadge(800, 400),
  },
  photograph('gullpost/partner.jpg', bay, 'noon', 81, [1600, 900]),
];
