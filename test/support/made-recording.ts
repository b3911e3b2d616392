import { noMarkers } from '../../src/core/load/markers.js';
import type { RequestType } from '../../src/core/load/request.js';
import { encodingOf } from '../../src/core/trial/recording.js';
import type { RecordedResponse, Recording } from '../../src/core/trial/recording.js';
import { contentHashOf } from '../../src/images/hash.js';
import type { FixTools } from '../../src/tasks/trial/fixes/fix.js';
import { pageRequest } from './page-request.js';

/** A response of a made recording. */
export interface MadeResponse {
  readonly url: string;
  readonly type: RequestType;
  readonly body: string | Buffer;
  readonly mediaType?: string;
  readonly headers?: Readonly<Record<string, string>>;
}

const mediaTypes: Readonly<Record<RequestType, string>> = {
  html: 'text/html',
  style: 'text/css',
  script: 'text/javascript',
  image: 'image/png',
  font: 'font/woff2',
  other: 'application/json',
};

/** A recording that was made up, and what fixes need to change it. */
export function madeRecording(
  made: readonly MadeResponse[],
  run: Partial<Recording['run']> = {},
  multiplexed: readonly string[] = [],
) {
  const bodies = new Map<string, Buffer>();
  const keep = (body: Buffer) => {
    const hash = contentHashOf(body);
    bodies.set(hash, body);
    return Promise.resolve({ hash, bytes: body.length });
  };
  const responses = made.map(({ url, type, body, mediaType, headers = {} }): RecordedResponse => {
    const bytes = Buffer.from(body);
    const hash = contentHashOf(bytes);
    bodies.set(hash, bytes);
    const request = pageRequest(url, {
      ...{ type, mediaType: mediaType ?? mediaTypes[type] },
      ...{ transferBytes: bytes.length + 100, bodyBytes: bytes.length },
      responseHeaders: Object.entries(headers).map(([name, value]) => ({ name, value })),
    });
    return {
      ...{ request, bodyHash: hash, bodyBytes: bytes.length, wireBytes: bytes.length },
      ...{ encoding: encodingOf(request), thinking: 0, onScroll: false },
    };
  });
  const page = made[0]!.url;
  const recording: Recording = {
    page,
    run: {
      ...{ startedAt: '2026-11-27T00:00:00.000Z', finalUrl: page, status: 200 },
      ...{ markers: noMarkers(), requests: responses.map(({ request }) => request), failure: null },
      ...run,
    },
    responses,
    multiplexed: new Set(multiplexed),
  };
  const tools: FixTools = {
    ...{ keep, refit: null, files: null, hosts: [] },
    read: (hash) => Promise.resolve(bodies.get(hash)!),
  };
  return {
    recording,
    tools,
    /** The body of a response as text. */
    textAt: ({ responses: some }: Recording, url: string) => {
      const found = some.find(({ request }) => request.url === url);
      return bodies.get(found?.bodyHash ?? '')?.toString();
    },
  };
}
