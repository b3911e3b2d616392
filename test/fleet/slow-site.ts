import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { photograph } from '../support/pictures.js';

/** A site whose pages wait before they answer, and that remembers who asked for what and when. */
export interface SlowSite {
  readonly start: string;
  /** What was asked for since the last call of `forget`, in order. */
  readonly asked: readonly { readonly path: string; readonly at: number; readonly login: string }[];
  /** How often each page was asked for. */
  readonly visits: () => ReadonlyMap<string, number>;
  readonly forget: () => void;
  readonly close: () => void;
}

export interface SlowSiteOptions {
  readonly pages: number;
  /** Milliseconds before a page answers. */
  readonly wait: number;
  /** Links to other pages on each: they form a tree. */
  readonly links?: number;
}

export async function startSlowSite({
  pages,
  wait,
  links = 3,
}: SlowSiteOptions): Promise<SlowSite> {
  const asked: { path: string; at: number; login: string }[] = [];
  const kinds = 4;
  const pictures = await Promise.all(
    Array.from({ length: kinds }, (_, at) =>
      photograph(500 + 100 * at, 400, at)
        .jpeg()
        .toBuffer(),
    ),
  );
  const server = createServer(({ url = '/', headers }, answer) => {
    const at = Number(/\d+/.exec(url)?.[0] ?? 0);
    asked.push({ path: url, at: performance.now(), login: headers.authorization ?? '' });
    if (url.endsWith('.jpg'))
      return answer.setHeader('content-type', 'image/jpeg').end(pictures[at]);
    if (url !== '/' && !url.startsWith('/page-')) return answer.writeHead(404).end();
    const next = Array.from({ length: links }, (_, place) => links * at + place + 1);
    const body = `<!doctype html><title>Kite ${at}</title><h1>Kite ${at} of the bay</h1>
      <img src="/kite-${at % kinds}.jpg" width="${150 + at}" height="100" alt="">
      ${next.flatMap((one) => (one < pages ? `<a href="/page-${one}.html">${one}</a>` : [])).join(' ')}`;
    setTimeout(() => answer.setHeader('content-type', 'text/html').end(body), wait);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return {
    start: `http://127.0.0.1:${port}/`,
    asked,
    visits: () => {
      const counts = new Map<string, number>();
      for (const { path } of asked)
        if (path === '/' || path.startsWith('/page-'))
          counts.set(path, (counts.get(path) ?? 0) + 1);
      return counts;
    },
    forget: () => void (asked.length = 0),
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}
