// Draws the floors of the house and what imports what, from the code itself, into docs/architecture.svg.
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { dirname, join, posix } from 'node:path';
import { fileURLToPath } from 'node:url';
import { floors } from './floors.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const target = join(root, 'docs', 'architecture.svg');
const rooms = floors.flat();

const picture = draw();
if (process.argv.includes('--check')) {
  if (readFileSync(target, 'utf8') !== picture) {
    process.stderr.write('docs/architecture.svg is not current: run npm run docs\n');
    process.exit(1);
  }
} else writeFileSync(target, picture);

/** The room of a file below src/, `cli` of `src/cli/main.ts`; nothing for the face of the library. */
function roomOf(path) {
  return rooms.find((room) => path.startsWith(`src/${room}/`));
}

function filesIn(folder) {
  return readdirSync(join(root, folder), { recursive: true })
    .map((name) => posix.join(folder, String(name).replaceAll('\\', '/')))
    .filter((path) => path.endsWith('.ts'))
    .sort();
}

/** Which room imports which: no numbers, so that the picture changes only with the structure. */
function importsOf() {
  const arrows = new Set();
  for (const path of filesIn('src')) {
    const room = roomOf(path);
    if (!room) continue;
    const text = readFileSync(join(root, path), 'utf8');
    for (const [, to] of text.matchAll(/(?:from|import\()\s*'(\.[^']+)\.js'/g)) {
      const other = roomOf(posix.join(dirname(path), `${to}.ts`));
      if (other && other !== room) arrows.add(`${room}>${other}`);
    }
  }
  return [...arrows].sort();
}

function draw() {
  const [width, floorHeight, boxHeight, left] = [1120, 84, 40, 40];
  const places = new Map();
  floors.toReversed().forEach((floor, index) => {
    const across = (width - 2 * left) / floor.length;
    floor.forEach((room, at) => {
      const wide = Math.min(across - 28, 220);
      const x = left + across * (at + 0.5) - wide / 2;
      places.set(room, { x, y: 64 + index * floorHeight, wide });
    });
  });
  const height = 64 + floors.length * floorHeight;
  const lines = importsOf().map((key) => {
    const [from, to] = key.split('>').map((room) => places.get(room));
    const [x1, y1] = [from.x + from.wide / 2, from.y + boxHeight];
    const [x2, y2] = [to.x + to.wide / 2, to.y];
    const up = y2 < y1;
    return `<path d="M${x1} ${y1} C${x1} ${y1 + 40} ${x2} ${y2 - 40} ${x2} ${y2}" fill="none" stroke="${up ? '#b3261e' : '#7b8794'}" stroke-opacity="${up ? 1 : 0.45}" stroke-width="1.2"/>`;
  });
  const boxes = [...places].map(([room, { x, y, wide }]) => {
    const middle = x + wide / 2;
    return [
      `<rect x="${x}" y="${y}" width="${wide}" height="${boxHeight}" rx="4" fill="${room.startsWith('core/') ? '#e7f0ea' : '#eef1f6'}" stroke="#4a5561"/>`,
      `<text x="${middle}" y="${y + 26}" text-anchor="middle" font-weight="600">${room}</text>`,
    ].join('');
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="system-ui, Liberation Sans, Arial, sans-serif" font-size="14">`,
    '<rect width="100%" height="100%" fill="#fff"/>',
    `<text x="${left}" y="34" font-size="17" font-weight="600">Who imports whom: downward only</text>`,
    ...lines,
    ...boxes,
    '</svg>',
    '',
  ].join('\n');
}
