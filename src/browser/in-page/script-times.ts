import { keptAddress } from '../../core/address/address.js';
import type { ScriptTime } from '../../core/survey/load-facts.js';
import { entriesOf } from './entries.js';
import { scrolledAt } from './scroll.js';

/** What a script did in a long frame (Long Animation Frames, W3C). */
interface ScriptEntry {
  readonly sourceURL: string;
  readonly sourceFunctionName: string;
  readonly duration: number;
  readonly forcedStyleAndLayoutDuration: number;
}

interface FrameEntry extends PerformanceEntry {
  readonly scripts: readonly ScriptEntry[];
}

const maxScripts = 100;
const maxName = 120;

/** What scripts did in long frames before the page was scrolled, each file once, the longest first. */
export async function scriptTimes(): Promise<ScriptTime[]> {
  const frames = (await entriesOf('long-animation-frame', 0)) as FrameEntry[];
  const files = new Map<string, { time: number; forced: number; function: string; most: number }>();
  for (const { startTime, scripts } of frames) {
    if (startTime > scrolledAt) continue;
    for (const script of scripts) {
      const { sourceURL, sourceFunctionName, duration } = script;
      if (!/^https?:/.test(sourceURL)) continue;
      const url = keptAddress(sourceURL);
      const file = files.get(url) ?? { time: 0, forced: 0, function: '', most: 0 };
      file.time += duration;
      file.forced += script.forcedStyleAndLayoutDuration;
      if (duration > file.most)
        Object.assign(file, { most: duration, function: sourceFunctionName.slice(0, maxName) });
      files.set(url, file);
    }
  }
  return [...files]
    .map(([url, { time, forced, function: name }]) => ({
      ...{ url, function: name },
      time: Math.round(time),
      forced: Math.round(forced),
    }))
    .sort((a, b) => b.time - a.time)
    .slice(0, maxScripts);
}
