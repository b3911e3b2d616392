// A site for benches, served on loopback. Everything about it is known beforehand.
import { once } from 'node:events';
import { Worker } from 'node:worker_threads';

/**
 * Serves the site from a thread of its own, as others' sites are: what is measured must not hold its answers up.
 *
 * @param pages how many pages there are, all linked from the first
 * @param images how many pictures each page has of its own, besides two style sheets and a script
 * @param latency milliseconds before every answer
 * @param template whether one of the style sheets is that of a template, with thousands of rules
 */
export async function serveBenchSite({ pages, images, latency, template = false }) {
  const workerData = { pages, images, latency, template };
  const server = new Worker(new URL('./site-server.mjs', import.meta.url), { workerData });
  const [port] = await once(server, 'message');
  const origin = `http://127.0.0.1:${port}`;
  return {
    origin,
    urls: Array.from({ length: pages }, (_, page) => `${origin}/p${page}`),
    close: () => server.terminate(),
  };
}
