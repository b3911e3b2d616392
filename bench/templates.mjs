// Real HTML templates (packages of npm, among the development dependencies), served on loopback.
import { once } from 'node:events';
import { appendFileSync, cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
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
 * @param more how often its style sheet is repeated, for elements that no page has
 * @returns its address, and the mappings of the hosts that it names
 */
export async function serveTemplate(name, more = 0) {
  const folder = new URL(`../node_modules/startbootstrap-${name}/dist`, import.meta.url);
  const site = withStyles(fileURLToPath(folder), more);
  const worker = new Worker(new URL(import.meta.url), { workerData: site.folder });
  const [start] = await once(worker, 'message');
  return {
    start,
    hosts: elsewhere.map((host) => `${host}=127.0.0.1:9`),
    close: async () => {
      await worker.terminate();
      site.remove();
    },
  };
}

function withStyles(folder, more) {
  if (more === 0) return { folder, remove: () => {} };
  const copy = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  cpSync(folder, copy, { recursive: true });
  const file = join(copy, 'css/styles.css');
  const styles = readFileSync(file, 'utf8');
  for (let time = 1; time <= more; time++)
    appendFileSync(file, styles.replaceAll(/\.(?=[a-z_-])/gi, `.other${time}-`));
  return { folder: copy, remove: () => rmSync(copy, { recursive: true, force: true }) };
}

if (!isMainThread && typeof workerData === 'string') {
  const { address } = await serveFolder(workerData);
  parentPort.postMessage(`http://${address}/`);
}
