// A site for benches, served on loopback: pages of one template behind a server that waits with every
// answer. Everything about it is known beforehand.
import { once } from 'node:events';
import { createServer } from 'node:http';
import sharp from 'sharp';

/**
 * @param pages how many pages there are, all linked from the first
 * @param images how many pictures each page has of its own, besides two style sheets and a script
 * @param latency milliseconds before every answer
 */
export async function serveBenchSite({ pages, images, latency }) {
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
  const origin = `http://127.0.0.1:${server.address().port}`;
  return {
    origin,
    urls: Array.from({ length: pages }, (_, page) => `${origin}/p${page}`),
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}

const styles = `main{max-width:1120px;margin:auto;display:grid;gap:16px;grid-template-columns:repeat(3,1fr)}
  img{width:100%;height:auto}@media(max-width:760px){main{grid-template-columns:1fr}}`;
