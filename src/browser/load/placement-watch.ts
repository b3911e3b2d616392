import type { PlacementSize } from '../../core/trial/moved-placements.js';
import type { ProbedPlacement } from '../in-page/probed.js';
import type { LoadObserver, RestingPage } from './cold-load.js';

/** Milliseconds to wait for pictures further down once they are scrolled to. */
const patience = 4_000;

/** Measures the placements of a page once, after everything else is measured. */
export class PlacementWatch implements LoadObserver {
  readonly readsBodies = false;
  #found: readonly PlacementSize[] | null = null;

  /** In the order of the document; `null` before a page was at rest. */
  get found(): readonly PlacementSize[] | null {
    return this.#found;
  }

  begin(): void {}

  async atRest({ channel, world }: RestingPage): Promise<void> {
    // They are the same at every load, and scrolling takes its time.
    if (this.#found !== null) return;
    await channel.send('Network.emulateNetworkConditions', {
      ...{ offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: -1 },
    });
    await world.call('scrollThrough', 0, 0);
    await world.call('hurryImages');
    await world.settleImages(patience);
    const placements = await world.call<ProbedPlacement[]>('placementsOf');
    this.#found = placements
      .filter(({ shown }) => shown)
      .map(({ kind, selector, url, slot, box: { left, top } }) => {
        return { kind, selector, url, slot, left, top };
      });
  }
}
