import type { Channel } from '../chromium/channel.js';
import type { View } from '../../core/visitors/view.js';
import type { FirstScreen } from '../in-page/box.js';
import type { ProbedPlacement } from '../in-page/probed.js';
import { IsolatedWorld } from '../chromium/isolated-world.js';

/** How deep nested frames are followed, and how many of them in all. */
const maxDepth = 5;
const maxFrames = 50;

interface FrameTree {
  readonly frame: { readonly id: string };
  readonly childFrames?: readonly FrameTree[];
}

/** A document that was measured: the page itself, or one of its frames. */
export interface MeasuredDocument {
  readonly world: IsolatedWorld;
  readonly placements: readonly ProbedPlacement[];
}

/**
 * The frames of a page, of its own and of other origins, with their placements, whose selectors begin
 * with that of the frame. A frame that is gone or cannot be looked into is left out.
 *
 * @param main the world of the page itself
 */
export async function measureFrames(
  cdp: Channel,
  main: IsolatedWorld,
  view: View,
): Promise<MeasuredDocument[]> {
  const { frameTree } = await cdp.send('Page.getFrameTree');
  const frames: MeasuredDocument[] = [];
  let left = maxFrames;
  const look = async (tree: FrameTree, parent: IsolatedWorld, prefix: string, depth: number) => {
    for (const child of tree.childFrames ?? []) {
      if (depth > maxDepth || left-- <= 0) return;
      try {
        const { backendNodeId } = await cdp.send('DOM.getFrameOwner', { frameId: child.frame.id });
        const selector = `${prefix}${await parent.callWithNode<string>('selectorOf', backendNodeId)} >>> `;
        const world = await IsolatedWorld.open(cdp, child.frame.id);
        const screen = await firstScreenOf(cdp, backendNodeId, view);
        const found = await world.call<ProbedPlacement[]>('placementsOf', screen);
        const placements = found.map((one) => ({ ...one, selector: selector + one.selector }));
        frames.push({ world, placements });
        await look(child, world, selector, depth + 1);
      } catch {
        // It was taken away meanwhile, or has no box: nothing is shown in it.
      }
    }
  };
  await look(frameTree, main, '', 1);
  return frames;
}

/** Where the content of a frame lies in the first screen of the page. */
async function firstScreenOf(
  cdp: Channel,
  backendNodeId: number,
  { width, height }: View,
): Promise<FirstScreen> {
  const { model } = await cdp.send('DOM.getBoxModel', { backendNodeId });
  const [left = 0, top = 0] = model.content;
  return { left, top, width, height };
}
