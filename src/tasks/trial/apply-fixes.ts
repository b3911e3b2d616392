import { SettingError } from '../../core/base/errors.js';
import type { Recording } from '../../core/trial/recording.js';
import { allFixes } from './fixes/index.js';
import type { Fix, FixTools } from './fixes/fix.js';
import type { AppliedFix, TrialOptions } from './trial-options.js';

/** What stands for no fix at all in a call. */
const noFix = 'none';

/**
 * The fixes that a call asks for, in the sequence in which they are applied.
 *
 * @throws SettingError for a name that no fix has.
 */
export function chooseFixes(
  { fixes, without }: Pick<TrialOptions, 'fixes' | 'without'>,
  tools: FixTools,
): readonly Fix[] {
  const names = allFixes.map(({ name }) => name);
  for (const [option, given] of [
    ['--fix', fixes],
    ['--without', without],
  ] as const)
    for (const name of given)
      if (!names.includes(name) && name !== noFix)
        throw new SettingError(
          `${option}: expected ${names.join(', ')} or ${noFix}, found ${JSON.stringify(name)}`,
        );
  if (fixes.includes(noFix)) return [];
  return allFixes
    .filter((fix) => (fixes.length > 0 ? fixes.includes(fix.name) : fix.isUsual(tools)))
    .filter(({ name }) => !without.includes(name));
}

/** Applies fixes one after the other. */
export async function applyFixes(
  recording: Recording,
  fixes: readonly Fix[],
  tools: FixTools,
): Promise<{ recording: Recording; applied: readonly AppliedFix[] }> {
  const applied: AppliedFix[] = [];
  let fixed = recording;
  for (const fix of fixes) {
    const { recording: next, changed, notes } = await fix.apply(fixed, tools);
    fixed = next;
    const { name, title, unit } = fix;
    applied.push({ ...{ name, title, unit, changed, notes }, alone: null, predicted: null });
  }
  return { recording: fixed, applied };
}
