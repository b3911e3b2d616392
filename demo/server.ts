import { once } from 'node:events';
import { createServer } from 'node:http';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { gzipSync } from 'node:zlib';
import { setTimeout as pause } from 'node:timers/promises';
import type { Deployment } from './deploy.js';
import { countingPixel, siteCss, sliderJs, tagJs, typeCss } from './site/assets.js';
import { demoHosts, siteHost, tagHost, weatherHost } from './site/hosts.js';
import { documentOf } from './site/layout.js';
import { pages } from './site/pages.js';

export interface DemoSite {
  /** The address to survey; it needs `hosts` to be reached. */
  readonly start: string;
  /** Where the made-up hosts really are, as `127.0.0.1:port`, by host name. */
  readonly hosts: Readonly<Record<string, string>>;
  close(): Promise<void>;
}

type Answer =
  | {
      readonly status: 200;
      readonly type: string;
      readonly body: string | Buffer;
      readonly delay?: number;
    }
  | {
      readonly status: 200;
      readonly type: string;
      readonly file: string;
      readonly headers?: Readonly<Record<string, string>>;
      readonly zipped?: boolean;
    }
  | { readonly status: 302; readonly location: string }
  | { readonly status: 404 };

const mediaTypes: Readonly<Record<string, string>> = {
  '.jpg': 'image/jpeg',
  '.png': 'image/png',
  '.webp': 'image/webp',
  '.avif': 'image/avif',
  '.gif': 'image/gif',
  '.svg': 'image/svg+xml',
};

/** The same panorama, uploaded a second time under another name. */
const secondAddress = { from: '/media/2026/panorama-copy.jpg', to: '/img/site/bay-panorama.jpg' };

/**
 * Serves the festival's site and its two third parties on loopback.
 *
 * @param pictures folder made by `drawPictures`
 * @param port 0 takes any free one
 * @param deployment a refit that has been deployed
 */
export async function serveDemo(
  pictures: string,
  port = 0,
  deployment?: Deployment,
): Promise<DemoSite> {
  const server = createServer((request, response) => {
    const host = (request.headers.host ?? '').replace(/:\d+$/, '');
    const { pathname } = new URL(request.url ?? '/', 'http://any.test');
    const original = answerOf(pictures, host, pathname, request.headers.accept ?? '');
    const answer = deployment
      ? deployed(deployment, `http://${host}${pathname}`, original)
      : original;
    send(request, response, answer).catch(() => response.destroy());
  });
  server.listen(port, '127.0.0.1');
  await once(server, 'listening');
  const address = `127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    start: `http://${siteHost}/`,
    hosts: Object.fromEntries(demoHosts.map((host) => [host, address])),
    close: async () => {
      server.close();
      server.closeAllConnections();
      await once(server, 'close');
    },
  };
}

/** An answer of the site after a refit: new files, and pages and texts that ask for them. */
function deployed(deployment: Deployment, url: string, original: Answer): Answer {
  const file = deployment.file(url);
  const zipped = deployment.isCompressed(url);
  if (file) return { status: 200, type: file.mediaType, file: file.path, zipped };
  if (original.status !== 200 || !url.startsWith(`http://${siteHost}/`)) return original;
  if ('file' in original) return { ...original, zipped: zipped || original.zipped === true };
  if (typeof original.body !== 'string') return original;
  const { type, body } = original;
  const isPage = type.startsWith('text/html');
  return { ...original, body: isPage ? deployment.page(url, body) : deployment.text(body) };
}

function answerOf(pictures: string, host: string, path: string, accepted: string): Answer {
  if (host === tagHost) return tagAnswer(path);
  if (host === weatherHost && path === '/frame/')
    return {
      status: 200,
      type: 'text/html; charset=utf-8',
      body: `<!doctype html><title>Gull Post</title><style>body{margin:0}</style><img id="strange" src="/badge/weather.png" width="160" height="80" alt="">`,
    };
  if (host === weatherHost) {
    const name = /^\/(?:badge|partners)\/([a-z]+\.(?:png|jpg))$/.exec(path)?.[1];
    return name ? pictureAnswer(pictures, `gullpost/${name}`) : { status: 404 };
  }
  if (path === '/tickets') return { status: 302, location: '/programme/' };
  const asset = assets.get(path);
  if (asset) return asset;
  const page = pages.find((candidate) => candidate.path === path);
  if (page)
    return {
      status: 200,
      type: 'text/html; charset=utf-8',
      body: documentOf(page),
      ...(page.delay === undefined ? {} : { delay: page.delay }),
    };
  const exhibit = museumAnswer(pictures, path, accepted);
  if (exhibit) return exhibit;
  const picture = path === secondAddress.from ? secondAddress.to : path;
  return /^\/img\/[a-z]+\/[\w-]+\.[a-z]+$/i.test(picture)
    ? pictureAnswer(pictures, picture.slice(1))
    : { status: 404 };
}

/** The ways in which a server can answer, one each. */
function museumAnswer(pictures: string, path: string, accepted: string): Answer | undefined {
  const file = (name: string) => join(pictures, 'img/museum', name);
  switch (path) {
    case '/museum/old-plate':
      return { status: 302, location: '/img/museum/plate.png' };
    case '/museum/compass.svg':
      return { status: 200, type: 'image/svg+xml', file: file('compass.svg'), zipped: true };
    case '/museum/false-name.png':
      return { status: 200, type: 'image/png', file: file('turned.jpg') };
    case '/museum/poster': {
      const modern = accepted.includes('image/webp');
      return {
        status: 200,
        type: modern ? 'image/webp' : 'image/gif',
        file: file(modern ? 'reel.webp' : 'reel.gif'),
        headers: { vary: 'Accept', 'cache-control': 'no-cache', etag: '"poster-1"' },
      };
    }
    default:
      return undefined;
  }
}

const assets: ReadonlyMap<string, Answer> = new Map([
  ['/assets/site.css', { status: 200, type: 'text/css', body: siteCss }],
  ['/assets/type.css', { status: 200, type: 'text/css', body: typeCss }],
  ['/assets/slider.js', { status: 200, type: 'text/javascript', body: sliderJs }],
]);

function tagAnswer(path: string): Answer {
  if (path === '/tag.js') return { status: 200, type: 'text/javascript', body: tagJs, delay: 250 };
  if (path === '/count.gif') return { status: 200, type: 'image/gif', body: countingPixel };
  return { status: 404 };
}

function pictureAnswer(pictures: string, path: string): Answer {
  const type = mediaTypes[extname(path)] ?? 'application/octet-stream';
  return { status: 200, type, file: join(pictures, path) };
}

async function send(
  request: IncomingMessage,
  response: ServerResponse,
  answer: Answer,
): Promise<void> {
  if (answer.status === 302) {
    response.writeHead(302, { location: answer.location }).end();
    return;
  }
  if (answer.status === 404) {
    response.writeHead(404, { 'content-type': 'text/plain' }).end('Nothing here but sand.\n');
    return;
  }
  if ('body' in answer) {
    await pause(answer.delay ?? 0);
    response.writeHead(200, {
      'content-type': answer.type,
      'content-length': Buffer.byteLength(answer.body),
    });
    response.end(request.method === 'HEAD' ? undefined : answer.body);
    return;
  }
  const found = await stat(answer.file).catch(() => undefined);
  if (!found?.isFile()) return send(request, response, { status: 404 });
  const zipped = answer.zipped ? gzipSync(await readFile(answer.file)) : undefined;
  response.writeHead(200, {
    'content-type': answer.type,
    'content-length': zipped?.length ?? found.size,
    'cache-control': 'max-age=3600',
    ...(zipped && { 'content-encoding': 'gzip' }),
    ...answer.headers,
  });
  if (request.method === 'HEAD') response.end();
  else if (zipped) response.end(zipped);
  else await pipeline(createReadStream(answer.file), response);
}
