import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { UsageError, messageOf } from '../../core/base/errors.js';
import { metricsType } from '../../output/openmetrics/metrics.js';

/** Figures that are served on loopback. */
export interface MetricsServer {
  readonly address: string;
  /** What is served from now on. */
  set(text: string): void;
  close(): Promise<void>;
}

/**
 * Serves figures at `/metrics` on loopback; before the first there are none.
 *
 * @param port 0 takes any free one
 * @throws UsageError when the port is taken.
 */
export async function serveMetrics(port: number): Promise<MetricsServer> {
  let current = '# EOF\n';
  const server = createServer(({ url, method }, response) => {
    if (url?.split('?', 1)[0] !== '/metrics' || (method !== 'GET' && method !== 'HEAD')) {
      response.writeHead(404).end();
      return;
    }
    response.writeHead(200, { 'content-type': metricsType });
    response.end(method === 'HEAD' ? undefined : current);
  });
  server.listen(port, '127.0.0.1');
  await once(server, 'listening').catch((error: unknown) => {
    throw new UsageError(`port ${port} cannot be used: ${messageOf(error)}`, {
      hint: 'give another one with --metrics',
    });
  });
  server.unref();
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/metrics`,
    set: (text) => (current = text),
    close: async () => {
      server.close();
      server.closeAllConnections();
      await once(server, 'close');
    },
  };
}
