import type { Deployment } from '../../demo/deploy.js';
import { drawPictures } from '../../demo/pictures/draw.js';
import { serveDemo } from '../../demo/server.js';
import type { DemoSite } from '../../demo/server.js';
import type { TaskOptions } from './progress.js';
import { noProgress } from './progress.js';

/** Draws the site's pictures where they are missing, and says where they are. */
export async function demoPictures(
  cache: string,
  { onProgress = noProgress }: TaskOptions = {},
): Promise<string> {
  return drawPictures(cache, (done, total) =>
    onProgress({ stage: 'pictures', done, total, doing: 'the Brindle Bay Kite Festival' }),
  );
}

/** Serves the site, its pictures drawn first where they are missing. */
export async function serveDemoSite(
  cache: string,
  port: number,
  task: TaskOptions = {},
  deployment?: Deployment,
): Promise<DemoSite> {
  return serveDemo(await demoPictures(cache, task), port, deployment);
}
