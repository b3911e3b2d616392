import { once } from 'node:events';
import { createServer } from 'node:http';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { basename, resolve } from 'node:path';
import compression from 'compression';
import sirv from 'sirv';

/** A folder served on loopback until it is closed. */
export interface FolderSite {
  /** The address of its front page; the same for the same folder name, so that surveys compare. */
  readonly start: string;
  readonly host: string;
  /** `127.0.0.1:port`, the real place of the host. */
  readonly address: string;
  close(): Promise<void>;
}

/**
 * Serves the folder of a static site under a host name made from the folder's own, as a good server would: texts compressed,
 * with validators. Nothing outside the folder is served, and nothing whose name begins with a dot.
 */
export async function serveFolder(folder: string): Promise<FolderSite> {
  const path = resolve(folder);
  const files = sirv(path, { dev: true, etag: true, extensions: ['html'] });
  const server = createServer((request, response) => {
    const missing = () => {
      response.writeHead(404, { 'content-type': 'text/plain' }).end('No such file.\n');
    };
    if (isHidden(request.url ?? '/')) missing();
    else compressed(request, response, () => files(request, response, missing));
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const host = `${hostLabel(basename(path))}.localhost`;
  return {
    host,
    start: `http://${host}/`,
    address: `127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: async () => {
      server.close();
      server.closeAllConnections();
      await once(server, 'close');
    },
  };
}

/** The package is written for a framework of which it uses nothing but what Node has. */
const compressed = compression() as unknown as (
  request: IncomingMessage,
  response: ServerResponse,
  next: () => void,
) => void;

/** Whether any part of a path begins with a dot: `.env`, `.git/`, and `..`. */
function isHidden(path: string): boolean {
  try {
    return decodeURIComponent(path)
      .split(/[\\/]/)
      .some((part) => part.startsWith('.'));
  } catch {
    return true;
  }
}

/** A folder's name as the first label of a host name. */
function hostLabel(name: string): string {
  const label = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 60)
    .replace(/^-+|-+$/g, '');
  return label || 'site';
}
