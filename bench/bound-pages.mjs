// Pages that are slow for one reason each, served on loopback: connections, the line, a server, a script.
import { once } from 'node:events';
import { createServer } from 'node:http';
import { setTimeout as after } from 'node:timers/promises';
import sharp from 'sharp';

const slowHost = 'slow.bound.test';
const noise = (width, height) =>
  sharp({
    create: { width, height, channels: 3, noise: { type: 'gaussian', mean: 128, sigma: 60 } },
  })
    .jpeg({ quality: 90 })
    .toBuffer();
const text = (bytes) =>
  Array.from({ length: bytes / 40 }, (_, at) =>
    `.kite-${at} { margin: ${at % 97}px ${at % 89}px }`.padEnd(39),
  ).join('\n');

/** Serves the pages, with the fix that is to be tried on each. */
export async function serveBoundPages() {
  const [large, small] = [await noise(1200, 800), await noise(60, 40)];
  const document = (body) =>
    `<!doctype html><html><head><link rel="icon" href="data:,"><style>img { width: 90px; height: 60px }</style>${body}</html>`;
  const many = Array.from({ length: 40 }, (_, at) => `<img src="/small-${at}.jpg">`).join('');
  const pages = {
    '/connections': document(
      `<link rel="stylesheet" href="/large.css"></head><body><h1>Kites</h1>${many}`,
    ),
    '/line': document(
      '<link rel="stylesheet" href="/large.css"></head><body><h1>Kites</h1><img src="/large-1.jpg"><img src="/large-2.jpg">',
    ),
    '/server': document(
      `<script src="http://${slowHost}/slow.js"></script></head><body><h1>Kites</h1><img src="/large-1.jpg">`,
    ),
    '/script': document(
      '<script src="/busy.js"></script></head><body><h1>Kites</h1><img src="/large-1.jpg">',
    ),
  };
  const server = createServer((request, response) => {
    const path = request.url ?? '/';
    const [type, body] =
      path in pages
        ? ['text/html', pages[path]]
        : path.endsWith('.css')
          ? ['text/css', text(400_000)]
          : path === '/busy.js'
            ? [
                'text/javascript',
                `for (const end = performance.now() + 300; performance.now() < end; ); /*${text(300_000)}*/`,
              ]
            : path === '/slow.js'
              ? ['text/javascript', '1']
              : ['image/jpeg', path.startsWith('/large') ? large : small];
    const send = async () => {
      if (path === '/slow.js') await after(800);
      response.writeHead(200, { 'content-type': type }).end(body);
    };
    void send();
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const address = `127.0.0.1:${server.address().port}`;
  return {
    slowHost,
    hosts: { '*.bound.test': address },
    pages: Object.keys(pages).map((path) => ({
      page: `http://www.bound.test${path}`,
      fix: path === '/server' ? 'without-hosts' : 'compress',
    })),
    close: async () => {
      server.closeAllConnections();
      server.close();
      await once(server, 'close');
    },
  };
}
