// Whether files of one similarity look equally good, by two measures that the program does not use: photographs from
// Debian's wallpaper packages are encoded in several sizes, by the program as its policy asks, and by the rule that many
// follow: WebP at the lowest quality whose luma is similar on average. Prints the table of docs/model.md. It takes no
// times: the same pictures give the same table.
//
//   apt-get install libjxl-devtools gnome-backgrounds lomiri-wallpapers-16.04 mate-backgrounds \
//     plasma-workspace-wallpapers ukui-wallpapers
//   node bench/similarity.mjs [pictures of each package] [widths]
import { execFile } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import pLimit from 'p-limit';
import sharp from 'sharp';
import { max, median, quantile, standardDeviation } from 'simple-statistics';
import { searchQuality } from '../dist/src/core/pixels/quality-search.js';
import { structuralSimilarity } from '../dist/src/core/pixels/structural-similarity.js';
import { readImageFacts } from '../dist/src/images/facts.js';
import { encodeNeeded } from '../dist/src/images/needed.js';
import { readLuma } from '../dist/src/images/picture.js';
import { defaultPolicy } from '../dist/src/index.js';

const each = Number(process.argv[2] ?? 10);
const widths = (process.argv[3] ?? '320,640,960,1280').split(',').map(Number);
const run = promisify(execFile);
const folder = mkdtempSync(join(tmpdir(), 'lynx-similarity-'));
/** The width in which WebP alone is tried. */
const webpWidth = widths.find((width) => width >= 600) ?? widths[0];
/** The rule for comparison: its threshold and range. */
const onAverage = { threshold: 0.995, range: { least: 45, most: 85 } };

try {
  const photographs = await findPhotographs();
  const limit = pLimit(availableParallelism());
  const jobs = photographs.flatMap((path) => widths.map((width) => ({ path, width })));
  const rows = await Promise.all(jobs.map((job, index) => limit(() => compare(job, index))));
  const titles = jobs.map(({ path, width }) => `${path} at ${width} px`);
  console.log(`${photographs.length} photographs in widths of ${widths.join(', ')} px`);
  print(
    'luma alone, on average',
    rows.map(({ before }) => before),
    titles,
  );
  print(
    'as the policy asks',
    rows.map(({ after }) => after),
    titles,
  );
  const total = (some, kind) => some.reduce((sum, row) => sum + row[kind].bytes, 0);
  console.log(
    `\nbytes: ${(total(rows, 'after') / total(rows, 'before')).toFixed(2)} times those of luma alone`,
  );
  const tried = rows.filter(({ webp }) => webp !== null);
  const ratio = total(tried, 'after') / total(tried, 'webp');
  console.log(
    `at ${webpWidth} px, ${ratio.toFixed(2)} times those of WebP alone at the same similarity`,
  );
  const short = rows.filter(({ after }) => after.similarity < defaultPolicy.similarity).length;
  console.log(`below the threshold: ${short} of ${rows.length}`);
} finally {
  rmSync(folder, { recursive: true });
}

async function compare({ path, width }, index) {
  const { data, info } = await sharp(path)
    .rotate()
    .resize({ width })
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const ideal = await sharp(data, { raw: info }).png().toBuffer();
  const size = { width: info.width, height: info.height };
  const file = await readImageFacts(ideal, 'image/png');
  const encoded = async (formats) => {
    // As a photograph, whose own format is a lossy one.
    const jpeg = { ...file, mediaType: 'image/jpeg' };
    const made = await encodeNeeded(ideal, jpeg, size, { ...defaultPolicy, formats });
    const { similarity, format } = made.attempts.find(({ bytes }) => bytes === made.steps.best);
    return { ...(await measured(ideal, made.body, index)), similarity, format };
  };
  return {
    before: await measured(ideal, await byLuma(ideal), index),
    after: await encoded(defaultPolicy.formats),
    // Only to tell what the formats differ by: one size is enough.
    webp: width === webpWidth ? await encoded(['webp']) : null,
  };
}

async function byLuma(ideal) {
  const luma = await readLuma(ideal, 1);
  const { body } = await searchQuality(onAverage.threshold, onAverage.range, async (quality) => {
    const body = await sharp(ideal).webp({ quality }).toBuffer();
    return { quality, body, similarity: structuralSimilarity(luma, await readLuma(body, 1)) };
  });
  return body;
}

/** What two programs of libjxl say of a file: less is better. */
async function measured(ideal, body, index) {
  const [one, other] = ['ideal', 'encoded'].map((name) => join(folder, `${name}-${index}.png`));
  await sharp(ideal).toFile(one);
  await sharp(body).removeAlpha().png({ compressionLevel: 1 }).toFile(other);
  const [visible, structural] = await Promise.all(
    ['butteraugli_main', 'ssimulacra_main'].map((program) => run(program, [one, other])),
  );
  const [worst, , norm] = visible.stdout.match(/\d+(?:\.\d+)?/g).map(Number);
  return { bytes: body.length, worst, norm, structural: Number(structural.stdout) };
}

/** @param titles of the pictures, so that those which come off worst can be looked at */
function print(name, rows, titles) {
  console.log(`\n${name}`);
  for (const kind of ['worst', 'norm', 'structural']) {
    const values = rows.map((row) => row[kind]);
    const words = [
      ['median', median(values)],
      ['90th percentile', quantile(values, 0.9)],
      ['worst', max(values)],
      ['standard deviation', standardDeviation(values)],
    ].map(([word, value]) => `${word} ${value.toFixed(kind === 'structural' ? 4 : 2)}`);
    console.log(`  ${kind}: ${words.join(', ')}`);
    const order = values.map((_, at) => at).sort((one, other) => values[other] - values[one]);
    for (const at of order.slice(0, 3))
      console.log(`    ${values[at].toFixed(4)} ${rows[at].format ?? 'webp'}: ${titles[at]}`);
  }
}

/** The largest file of each picture, of several packages, in a fixed order. */
async function findPhotographs() {
  const packages = {
    gnome: /^\/usr\/share\/backgrounds\/gnome\/(?:adwaita|licorice|wood)/,
    mate: /^\/usr\/share\/backgrounds\/mate\/(?:nature|abstract)\//,
    lomiri: /^\/usr\/share\/backgrounds\/[^/]+_by_[^/]+$/,
    plasma: /^\/usr\/share\/wallpapers\//,
    ukui: /^\/usr\/share\/backgrounds\/[^/_]+$/,
  };
  const files = ['/usr/share/backgrounds', '/usr/share/wallpapers'].flatMap((top) =>
    readdirSync(top, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile() && /\.(?:jpe?g|png|webp)$/i.test(entry.name))
      .map((entry) => join(entry.parentPath, entry.name)),
  );
  const found = [];
  for (const pattern of Object.values(packages)) {
    const largest = new Map();
    for (const path of files.filter((one) => pattern.test(one)).sort()) {
      const { width, height, hasAlpha } = await sharp(path).metadata();
      if (hasAlpha || Math.max(width, height) < 1_600) continue;
      const picture = path.replace(/\/contents\/.*|_?\d+x\d+.*/, '');
      if (!((largest.get(picture)?.width ?? 0) >= width)) largest.set(picture, { path, width });
    }
    const paths = [...largest.values()].map(({ path }) => path);
    // Spread over the package, so that no series of one hand fills its share.
    const step = Math.max(1, paths.length / each);
    for (let at = 0; at < paths.length && at < each * step; at += step)
      found.push(paths[Math.floor(at)]);
  }
  return found;
}
