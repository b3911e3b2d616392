// Real HTML templates (packages of npm, among the development dependencies), served on loopback.
import { once } from 'node:events';
import { Worker, isMainThread, parentPort, workerData } from 'node:worker_threads';
import { fileURLToPath } from 'node:url';
import { serveFolder } from '../dist/src/crawl/folder-site.js';

/** Hosts that the templates name, which a bench must not reach: found where nobody listens. */
const elsewhere = [
  'cdn.jsdelivr.net',
  'cdn.startbootstrap.com',
  'cdnjs.cloudflare.com',
  'fonts.googleapis.com',
  'use.fontawesome.com',
];

/**
 * Serves a template from a thread of its own: what is measured must not hold its answers up.
 *
 * @returns its address, and the mappings of the hosts that it names
 */
export async function serveTemplate(name) {
  const worker = new Worker(new URL(import.meta.url), { workerData: name });
  const [start] = await once(worker, 'message');
  return {
    start,
    hosts: elsewhere.map((host) => `${host}=127.0.0.1:9`),
    close: () => worker.terminate(),
  };
}

if (!isMainThread && typeof workerData === 'string') {
  const folder = new URL(`../node_modules/startbootstrap-${workerData}/dist`, import.meta.url);
  const { address } = await serveFolder(fileURLToPath(folder));
  parentPort.postMessage(`http://${address}/`);
}
