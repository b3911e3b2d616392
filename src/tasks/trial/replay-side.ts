import { PlacementWatch } from '../../browser/load/placement-watch.js';
import { openConnections } from '../../reach/connections.js';
import type { LoadPlan } from '../../browser/load/cold-load.js';
import type { Recording } from '../../core/trial/recording.js';
import type { ThrowAwayCertificate } from '../../replay/certificate.js';
import { RecordedSource } from '../../replay/recorded-source.js';
import { serveReplay } from '../../replay/replay-server.js';
import { steadyPage } from './steady-page.js';

/** A recording that is being replayed. */
export interface ReplaySide {
  readonly source: RecordedSource;
  readonly placements: PlacementWatch;
  /** What makes a load one of this side. */
  readonly plan: () => Required<Pick<LoadPlan, 'context' | 'observer'>>;
  close(): Promise<void>;
}

/**
 * Replays a recording on loopback: every host is found there, and connecting takes as long as on the line.
 *
 * @param latency milliseconds of a round trip
 * @param read a stored body, by its hash
 */
export async function openSide(
  recording: Recording,
  latency: number,
  certificate: ThrowAwayCertificate,
  read: (hash: string) => Promise<Buffer>,
): Promise<ReplaySide> {
  const source = new RecordedSource(recording, read);
  await source.prepare();
  const server = await serveReplay(source, certificate);
  const connections = await openConnections(latency, server.placeOf);
  const placements = new PlacementWatch();
  const script = steadyPage(Date.parse(recording.run.startedAt));
  return {
    ...{ source, placements },
    plan: () => {
      source.begin();
      return { context: { proxyPort: connections.port, script }, observer: placements };
    },
    close: async () => {
      await connections.close();
      await server.close();
    },
  };
}
