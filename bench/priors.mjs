// Where the search for a quality should begin in each format, and how steep the way is: the quality that photographs of
// real templates need at the default similarity, and the fall of the dissimilarity with each step of quality.
//
//   node bench/priors.mjs [folder of JPEG files]
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { quantileSorted } from 'simple-statistics';
import { similarity } from '../dist/src/core/pixels/similarity.js';
import { encode } from '../dist/src/images/encode.js';
import { readColours, reduce } from '../dist/src/images/picture.js';
import { defaultPolicy } from '../dist/src/index.js';

const folders = process.argv[2]
  ? [process.argv[2]]
  : ['agency', 'creative', 'landing-page'].map(
      (name) => `node_modules/startbootstrap-${name}/dist`,
    );
const photographs = folders.flatMap((folder) =>
  readdirSync(folder, { recursive: true })
    .filter((name) => /\.jpe?g$/.test(name))
    .map((name) => join(folder, name)),
);
const goal = Math.log(1 - defaultPolicy.similarity);
const formats = [
  { format: 'avif', qualities: [76, 80, 84, 88, 92, 95] },
  { format: 'webp', qualities: [76, 80, 85, 90, 95] },
  { format: 'webp', fullColour: true, qualities: [76, 80, 85, 90, 95] },
  { format: 'jpeg', qualities: [70, 76, 80, 84, 88, 92] },
  { format: 'jpeg', fullColour: true, qualities: [70, 76, 80, 84, 88, 92] },
];
console.log(`${photographs.length} photographs, at most 640 pixels wide`);
for (const { format, fullColour = false, qualities } of formats) {
  const needs = [];
  const falls = [];
  for (const file of photographs) {
    const points = await pointsOf(file, format, fullColour, qualities);
    const enough = points.findIndex(({ dissimilarity }) => dissimilarity <= goal);
    for (let at = 1; at < points.length; at++) falls.push(fallOf(points[at - 1], points[at]));
    if (enough === 0) needs.push(points[0].quality);
    else if (enough > 0) {
      const before = points[enough - 1];
      const missing = before.dissimilarity - goal;
      needs.push(before.quality + missing / fallOf(before, points[enough]));
    }
  }
  const name = fullColour ? `${format}, all colours` : format;
  console.log(
    `${name.padEnd(18)} needs ${spread(needs, 1)} (${photographs.length - needs.length} never), falls by ${spread(falls, 3)}`,
  );
}

async function pointsOf(file, format, fullColour, qualities) {
  const { width, height } = await sharp(file).metadata();
  const wide = Math.min(640, width);
  const size = { width: wide, height: Math.round((height * wide) / width) };
  const picture = await reduce(readFileSync(file), 1, size);
  const points = [];
  for (const quality of qualities) {
    const body = await encode(picture.pipeline(), { format, quality, fullColour });
    const alike = similarity(picture.colours, await readColours(body, 1));
    points.push({ quality, dissimilarity: Math.log(Math.max(1e-6, 1 - alike)) });
  }
  return points;
}

function fallOf(one, other) {
  return (one.dissimilarity - other.dissimilarity) / (other.quality - one.quality);
}

/** The median, and the middle half. */
function spread(values, digits) {
  const sorted = values.toSorted((a, b) => a - b);
  const [low, middle, high] = [0.25, 0.5, 0.75].map((part) =>
    quantileSorted(sorted, part).toFixed(digits),
  );
  return `${middle} (${low} to ${high})`;
}
