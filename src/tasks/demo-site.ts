import type { Deployment } from '../../demo/deploy.js';
import { drawPictures } from '../../demo/pictures/draw.js';
import { serveDemo } from '../../demo/server.js';
import type { DemoSite } from '../../demo/server.js';
import type { TaskOptions } from './progress.js';
import { noProgress } from './progress.js';

/** Draws the site's pictures where they are missing, and serves it. */
export async function serveDemoSite(
  cache: string,
  port: number,
  { onProgress = noProgress }: TaskOptions = {},
  deployment?: Deployment,
): Promise<DemoSite> {
  const pictures = await drawPictures(cache, (done, total) =>
    onProgress({ stage: 'pictures', done, total, doing: 'the Brindle Bay Kite Festival' }),
  );
  return serveDemo(pictures, port, deployment);
}
