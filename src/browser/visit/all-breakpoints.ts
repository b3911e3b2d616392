import { joined } from '../../core/slots/breakpoints.js';
import type { Breakpoints } from '../../core/slots/breakpoints.js';
import type { FoundBreakpoints } from '../in-page/breakpoints.js';
import type { NetworkRecorder } from '../network/network-recorder.js';
import type { TextCollector } from '../network/texts.js';
import type { MeasuredDocument } from './frames.js';

const none: Breakpoints = { widths: [], whole: true };
const anyWidths: Breakpoints = { widths: [], whole: false };

/**
 * The breakpoints of a page: those that it tells itself, and those of the style sheets of other origins, which it cannot read,
 * by what the network brought.
 */
export async function allBreakpoints(
  [{ world }, ...frames]: readonly [MeasuredDocument, ...MeasuredDocument[]],
  recorder: NetworkRecorder,
  texts: TextCollector,
): Promise<Breakpoints> {
  const own = await world.call<FoundBreakpoints>('breakpointsOf');
  const others = own.unread.map(
    async (url) =>
      (await texts.breakpointsOf(url)) ?? (hasFailed(recorder, url) ? none : anyWidths),
  );
  // Frames have the breakpoints of their own windows.
  const within = frames.map(() => anyWidths);
  return joined([own, ...(await Promise.all(others)), ...within]);
}

/** Whether there is nothing at an address. */
function hasFailed({ recorded }: NetworkRecorder, url: string): boolean {
  const last = recorded.findLast((request) => request.url === url);
  return last !== undefined && (last.failure !== null || last.status >= 400);
}
