import { UsageError } from '../core/base/errors.js';

/**
 * Refuses a call that wants its result in several forms.
 *
 * @param forms by the names of their options, which of them were asked for
 * @throws UsageError when there are several.
 */
export function onlyOneForm(forms: Readonly<Record<string, boolean>>): void {
  if (Object.values(forms).filter(Boolean).length <= 1) return;
  const names = Object.keys(forms).map((name) => `--${name}`);
  throw new UsageError('one form of output at a time', {
    hint: `give one of ${names.slice(0, -1).join(', ')} and ${names.at(-1)}`,
  });
}
