// Where the search for a quality ends, beside the knee of the curve of similarity over bytes: the point that is
// furthest above the straight line between its ends (Satopää et al., "Finding a 'Kneedle' in a Haystack", 2011).
// Prints the table of docs/model.md. It takes no times: the same pictures give the same table.
//
//   node bench/knee.mjs
import sharp from 'sharp';
import { draw } from '../dist/demo/pictures/draw.js';
import { bay, dunes, sailcloth, workshop } from '../dist/demo/pictures/scenes.js';
import { similarity } from '../dist/src/core/pixels/similarity.js';
import { encode } from '../dist/src/images/encode.js';
import { readImageFacts } from '../dist/src/images/facts.js';
import { encodeNeeded } from '../dist/src/images/needed.js';
import { readLuma, reduce } from '../dist/src/images/picture.js';
import { defaultPolicy } from '../dist/src/index.js';

const size = { width: 720, height: 480 };
const qualities = Array.from({ length: 14 }, (_, at) => 30 + at * 5);

console.log(
  '| picture | knee | found | similarity there | bytes at the knee | bytes found | encodes |',
);
console.log('| --- | --- | --- | --- | --- | --- | --- |');
for (const [name, body] of await pictures()) {
  const file = await readImageFacts(body, '');
  const picture = await reduce(body, 1, size);
  const curve = [];
  for (const quality of qualities) {
    const made = await encode(picture.pipeline(), { format: 'webp', quality });
    const alike = similarity(picture.luma, await readLuma(made, 1));
    curve.push({ quality, bytes: made.length, similarity: alike });
  }
  const knee = kneeOf(curve);
  const { trials, steps, format } = await encodeNeeded(body, file, size, {
    ...defaultPolicy,
    formats: ['webp'],
  });
  const found = trials.find((trial) => trial.format === format && trial.bytes === steps.best);
  const kilobytes = (bytes) => `${(bytes / 1000).toFixed(1)} kB`;
  console.log(
    `| ${name} | ${knee.quality} | ${format} ${found.quality ?? 'rounded'} | ${found.similarity.toFixed(4)} | ${kilobytes(knee.bytes)} | ${kilobytes(found.bytes)} | ${trials.length + 1} |`,
  );
}

function kneeOf(curve) {
  const [first, last] = [curve[0], curve.at(-1)];
  const above = ({ bytes, similarity: alike }) =>
    (alike - first.similarity) / (last.similarity - first.similarity) -
    (bytes - first.bytes) / (last.bytes - first.bytes);
  return curve.reduce((best, point) => (above(point) > above(best) ? point : best));
}

async function pictures() {
  const painted = (paint, light, seed) =>
    draw({
      kind: 'photograph',
      path: 'x.jpg',
      paint,
      light,
      seed,
      quality: 95,
      width: 1500,
      height: 1000,
    });
  const drawn = (inside, blur = 0) => {
    const picture = sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="1440" height="960" font-family="sans-serif">${inside}</svg>`,
      ),
    );
    return (blur > 0 ? picture.blur(blur) : picture).png().toBuffer();
  };
  const many = (count, shape) => Array.from({ length: count }, (_, at) => shape(at)).join('');
  const sky =
    '<defs><linearGradient id="s" y2="1"><stop stop-color="#17375e"/><stop offset="1" stop-color="#f0c9a0"/></linearGradient></defs><rect width="100%" height="100%" fill="url(#s)"/>';
  return [
    ['a bay at noon', await painted(bay, 'noon', 11)],
    ['the same at night', await painted(bay, 'night', 15)],
    ['dunes in the morning', await painted(dunes, 'morning', 13)],
    ['sailcloth, near', await painted(sailcloth, 'noon', 5)],
    ['a workshop', await painted(workshop, 'noon', 7)],
    ['an empty sky', await drawn(sky, 0.5)],
    [
      'lights out of focus',
      await drawn(
        sky +
          many(
            60,
            (at) =>
              `<circle cx="${(at * 271) % 1440}" cy="${(at * 173) % 960}" r="${20 + ((at * 7) % 60)}" fill="hsl(${at * 23},80%,65%)" opacity=".35"/>`,
          ),
        6,
      ),
    ],
    [
      'grass',
      await drawn(
        many(
          6000,
          (at) =>
            `<path d="M${(at * 97) % 1440} ${(at * 61) % 980}q${(at % 9) - 4} -20 ${(at % 13) - 6} -40" stroke="hsl(${80 + (at % 40)},50%,${20 + (at % 35)}%)" stroke-width="2" fill="none"/>`,
        ),
        0.7,
      ),
    ],
    [
      'a wall of windows',
      await drawn(
        `<rect width="100%" height="100%" fill="#8a7f74"/>` +
          many(
            240,
            (at) =>
              `<rect x="${(at % 20) * 72 + 14}" y="${Math.floor(at / 20) * 80 + 16}" width="44" height="52" fill="hsl(210,20%,${20 + ((at * 37) % 50)}%)" stroke="#4a443e" stroke-width="3"/>`,
          ),
        0.8,
      ),
    ],
    [
      'text on a picture',
      await drawn(
        sky +
          many(
            14,
            (at) =>
              `<text x="60" y="${90 + at * 62}" font-size="${24 + (at % 4) * 8}" fill="#fff">The whole bay looks up on Saturday, from ten until the wind drops</text>`,
          ),
        0.6,
      ),
    ],
    [
      'a face of soft shapes',
      await drawn(
        `${sky}<ellipse cx="720" cy="480" rx="300" ry="380" fill="#e2b190"/><ellipse cx="610" cy="420" rx="44" ry="22" fill="#fff"/><ellipse cx="830" cy="420" rx="44" ry="22" fill="#fff"/><circle cx="612" cy="421" r="18" fill="#3b2a20"/><circle cx="832" cy="421" r="18" fill="#3b2a20"/><path d="M600 640q120 90 240 0" stroke="#a0453f" stroke-width="22" fill="none"/>`,
        4,
      ),
    ],
    [
      'film grain',
      await sharp({
        create: {
          width: 1440,
          height: 960,
          channels: 3,
          background: '#777',
          noise: { type: 'gaussian', mean: 120, sigma: 28 },
        },
      })
        .blur(1)
        .png()
        .toBuffer(),
    ],
  ];
}
