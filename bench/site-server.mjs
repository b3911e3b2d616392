// The server of a site for benches (site.mjs): pages of one template, and a wait before every answer.
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import { parentPort, workerData } from 'node:worker_threads';
import sharp from 'sharp';

const { pages, images, latency, template } = workerData;
const styles = `main{max-width:1120px;margin:auto;display:grid;gap:16px;grid-template-columns:repeat(3,1fr)}
  img{width:100%;height:auto}@media(max-width:760px){main{grid-template-columns:1fr}}`;

const large = template
  ? readFileSync(fileURLToPath(import.meta.resolve('startbootstrap-agency/dist/css/styles.css')))
  : '';

const picture = await sharp({
  create: { width: 800, height: 600, channels: 3, background: '#17637a' },
})
  .jpeg()
  .toBuffer();
const server = createServer((request, response) => {
  const { pathname } = new URL(request.url, 'http://bench.test');
  setTimeout(() => {
    const [type, body] = answerTo(pathname);
    response.writeHead(200, { 'content-type': type, 'cache-control': 'no-store' });
    response.end(body);
  }, latency);
});
const answerTo = (path) => {
  // What follows the end of a picture makes each a file of its own without another look.
  if (path.endsWith('.jpg')) return ['image/jpeg', Buffer.concat([picture, Buffer.from(path)])];
  if (template && path === '/two.css') return ['text/css', large];
  if (path.endsWith('.css')) return ['text/css', styles];
  if (path.endsWith('.js')) return ['text/javascript', 'document.title += " ready"'];
  if (path === '/robots.txt') return ['text/plain', ''];
  return ['text/html', pageAt(Number(path.slice(2) || 0))];
};
const pageAt = (number) => {
  const figures = Array.from(
    { length: images },
    (_, index) => `<img src="/p${number}-${index}.jpg" width="800" height="600" alt="">`,
  );
  const links = Array.from({ length: pages }, (_, page) => `<a href="/p${page}">${page}</a>`);
  return `<!doctype html><meta name="viewport" content="width=device-width"><title>${number}</title>
    <link rel="stylesheet" href="/one.css"><link rel="stylesheet" href="/two.css">
    <script src="/page.js" defer></script><nav>${number === 0 ? links.join(' ') : ''}</nav>
    <main>${figures.join('')}</main>`;
};
server.listen(0, '127.0.0.1');
await once(server, 'listening');
parentPort.postMessage(server.address().port);
