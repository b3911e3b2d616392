// Refits a folder of photographs, against a bare loop that makes the very same encodes (sizes, formats and qualities,
// those of the search for the quality included) from the same files with as many at a time. Both are run in turn; only
// their ratio is claimed. With a number of pictures of 20 megapixels: the peak memory of the program over all of them.
//
//   node bench/refit.mjs [rounds] [pictures]
//   node bench/refit.mjs memory [pictures]
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'libsql';
import pLimit from 'p-limit';
import sharp from 'sharp';
import { median } from 'simple-statistics';
import { draw } from '../dist/demo/pictures/draw.js';
import { bay, dunes, sailcloth, workshop } from '../dist/demo/pictures/scenes.js';
import { encode } from '../dist/src/images/encode.js';
import { contentHashOf } from '../dist/src/images/hash.js';
import { defaultPolicy, refitPictures, Workspace } from '../dist/src/index.js';
import { encodesOf } from './encodes.mjs';
import { runToEnd } from './run-to-end.mjs';

const limits = { longest: 1500, widths: [480, 960, 1500] };
const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
const camera = join(folder, 'camera');
mkdirSync(camera);
try {
  if (process.argv[2] === 'memory') await memory(Number(process.argv[3] ?? 1_000));
  else await speed(Number(process.argv[2] ?? 3), Number(process.argv[3] ?? 16));
} finally {
  rmSync(folder, { recursive: true, force: true });
}

async function photograph(seed, width, height) {
  const paint = [bay, dunes, sailcloth, workshop][seed % 4];
  const picture = { kind: 'photograph', path: 'x.jpg', light: 'noon', quality: 90 };
  return draw({ ...picture, paint, seed, width, height });
}

async function speed(rounds, count) {
  const bodies = new Map();
  for (let seed = 0; seed < count; seed++) {
    const body = await photograph(seed, 3000, 2000);
    writeFileSync(join(camera, `${seed}.jpg`), body);
    bodies.set(contentHashOf(body), join(camera, `${seed}.jpg`));
  }
  await refitAll('warm', bodies);
  const ratios = [];
  let encodes = 0;
  for (let round = 0; round < rounds; round++) {
    const ours = await refitAll(String(round), bodies);
    encodes = ours.encodes.length;
    const bare = await encodeBare(ours.encodes);
    if (process.env.TIMES) console.log(Math.round(ours.time), Math.round(bare));
    ratios.push(bare / ours.time);
  }
  console.log(
    `${count} pictures of 3000 × 2000, ${encodes} encodes, ${availableParallelism()} at a time`,
  );
  console.log(`refit / bare loop, in encodes a second: ${median(ratios).toFixed(2)}`);
}

/** A refit into a workspace of its own, and what it encoded. */
async function refitAll(name, bodies) {
  const workspace = Workspace.open(join(folder, `workspace-${name}`));
  const began = performance.now();
  await refitPictures(workspace, camera, join(folder, `out-${name}`), defaultPolicy, {
    limits,
    review: 0,
  });
  const time = performance.now() - began;
  workspace.close();
  const database = new Database(join(folder, `workspace-${name}`, 'workspace.sqlite'));
  const rows = database.prepare('SELECT * FROM encoded').all();
  database.close();
  const encodes = rows.flatMap(({ content_hash, need_width, need_height, policy, result }) => {
    const need = { width: need_width, height: need_height };
    const made = encodesOf({ need, ...JSON.parse(result) });
    // A file beside another one: how bytes follow pixels is known.
    const asked = policy.includes('alone') ? made.slice(0, -1) : made;
    return asked.map((encode) => ({ path: bodies.get(content_hash), ...encode }));
  });
  return { time, encodes };
}

async function encodeBare(list) {
  const limit = pLimit(availableParallelism());
  const began = performance.now();
  await Promise.all(
    list.map(({ path, size, ...encoding }) =>
      limit(() =>
        encode(
          sharp(path).rotate().resize(size.width, size.height, { fit: 'fill', kernel: 'lanczos3' }),
          encoding,
        ),
      ),
    ),
  );
  return performance.now() - began;
}

/** Few different pictures, many different files: what stands behind its end makes each one content of its own. */
async function memory(count) {
  const different = [];
  for (let seed = 0; seed < 4; seed++) different.push(await photograph(seed, 5472, 3648));
  for (let at = 0; at < count; at++)
    writeFileSync(
      join(camera, `${at}.jpg`),
      Buffer.concat([different[at % different.length], Buffer.from(String(at))]),
    );
  const program = fileURLToPath(new URL('../dist/bundle/cli/main.js', import.meta.url));
  const call = [program, 'refit', '--from', camera, '--out', join(folder, 'out'), '--quiet'];
  const ran = await runToEnd([...call, '--workspace', join(folder, 'workspace')]);
  const { files } = JSON.parse(readFileSync(join(folder, 'out/manifest.json'), 'utf8'));
  console.log(`${files.length} of ${count} pictures of 5472 × 3648 (20 megapixels) refitted`);
  console.log(`${ran.seconds.toFixed(0)} s, peak memory ${Math.round(ran.megabytes)} MB`);
}
