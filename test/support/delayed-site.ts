import { photograph } from './pictures.js';
import type { Answer } from './server.js';

/** What `clock --json` prints, as far as tests look at it. */
export interface ClockDocument {
  readonly median: {
    readonly markers: Readonly<Record<string, number | null>>;
    readonly requestCount: number;
    readonly bytes: number;
    readonly bytesByType: Readonly<Record<string, number>>;
  };
  readonly runs: readonly { readonly failure: string | null; readonly hostLoad: number }[];
  readonly requests: readonly {
    readonly url: string;
    readonly type: string;
    readonly status: number;
    readonly start: number;
    readonly end: number;
    readonly phases: Readonly<Record<string, number>>;
    readonly transferBytes: number;
    readonly initiator: string;
    readonly renderBlocking: boolean;
  }[];
  readonly findings: readonly {
    readonly id: string;
    readonly url: string | null;
    readonly cost: number | null;
  }[];
  readonly harFile: string;
}
/** Fixed delays, far above the noise of a busy machine, that the numbers must show. */
export const delays = { page: 300, style: 250, drip: 400, late: 700 };

/** A page whose parts take times that are known. */
export async function delayedSite(): Promise<Readonly<Record<string, Answer>>> {
  const picture = await photograph(400, 300).jpeg().toBuffer();
  return {
    '/': {
      wait: delays.page,
      body: `<!doctype html><title>t</title><link rel="stylesheet" href="/slow.css">
        <h1>Kites over the bay</h1><img src="/drip.jpg" width="400" height="300">
        <img src="/moved.jpg" width="40" height="30"><img src="/none.jpg">
        <script>setTimeout(() => { new Image().src = '/late.gif' }, 100)</script>`,
    },
    '/slow.css': { type: 'text/css', body: 'h1{color:teal}', wait: delays.style },
    '/drip.jpg': { type: 'image/jpeg', body: picture, pauseInBody: delays.drip },
    '/moved.jpg': { location: '/small.jpg' },
    '/small.jpg': { type: 'image/jpeg', body: picture },
    '/late.gif': { type: 'image/jpeg', body: picture, wait: delays.late },
    '/favicon.ico': { status: 204 },
  };
}
