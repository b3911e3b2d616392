// Runs in a process of its own: a vector image of a page may be made to draw for hours, or into gigabytes.
import { vectorWork } from './vector-work.js';
import type { VectorWork } from './vector-work.js';

/** Bytes that the process may have in memory, and milliseconds between two looks at them. */
const maxMemory = 700e6;
const lookEvery = 50;

setInterval(() => {
  if (process.memoryUsage.rss() > maxMemory) process.exit(1);
}, lookEvery).unref();

process.on('message', ({ name, body }: { name: keyof VectorWork; body: Uint8Array }) => {
  void vectorWork[name](Buffer.from(body.buffer, body.byteOffset, body.byteLength))
    .catch(() => null)
    .then((result) => process.send!(result));
});
process.on('disconnect', () => process.exit());
