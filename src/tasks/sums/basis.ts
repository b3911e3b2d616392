import { createHash } from 'node:crypto';
import type { Policy } from '../../core/policy/policy.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import { encodeKey } from '../../images/encode-key.js';
import { sealFormat } from '../../store/sealed-surveys.js';

/** It must grow with every change of what is summed up, and of how it is judged. */
const sumFormat = 1;

/** What the sums of a survey depend on besides the survey, as a digest. */
export function basisOf(policy: Policy, groups: readonly NamedGroup[] = []): string {
  const depends = [sumFormat, sealFormat, process.versions.v8, policy, groups, encodeKey(policy)];
  return createHash('sha256').update(JSON.stringify(depends)).digest('hex');
}
