import type { RequestChanges } from '../../core/load/changed-model.js';
import type { Recording } from '../../core/trial/recording.js';
import { requestChanges } from '../../core/trial/request-changes.js';
import { applyFixes } from './apply-fixes.js';
import type { Fix, FixTools, PageLayout } from './fixes/fix.js';
import type { AppliedFix } from './trial-options.js';

/** One form of a page: as it is, with all fixes, or with one of them. */
export interface TrialForm {
  /** `before`, `after`, or the name of the fix. */
  readonly name: string;
  readonly recording: Recording;
}

export interface TrialForms {
  /** The page as it is, the page with all fixes, and where it was asked for the page with each of them. */
  readonly forms: readonly TrialForm[];
  readonly applied: readonly AppliedFix[];
  /** What each fix changes of the requests, by its name, where that can be told beforehand. */
  readonly changes: ReadonlyMap<string, (layout: PageLayout) => RequestChanges>;
}

/** @param each whether the page is to be loaded with each fix alone */
export async function formsOf(
  recording: Recording,
  fixes: readonly Fix[],
  tools: FixTools,
  each: boolean,
): Promise<TrialForms> {
  const whole = await applyFixes(recording, fixes, tools);
  const single: TrialForm[] = [];
  const changes = new Map<string, (layout: PageLayout) => RequestChanges>();
  for (const fix of fixes) {
    const alone = await fix.apply(recording, tools);
    if (alone.changed === 0) continue;
    if (alone.requests) changes.set(fix.name, alone.requests);
    else if (fix.isOfBytes) changes.set(fix.name, () => requestChanges(recording, alone.recording));
    // One fix alone is what all of them are.
    if (each && fixes.length > 1) single.push({ name: fix.name, recording: alone.recording });
  }
  return {
    forms: [
      { name: 'before', recording },
      { name: 'after', recording: whole.recording },
      ...single,
    ],
    ...{ applied: whole.applied, changes },
  };
}
