import { array } from 'yup';
import type { InferType } from 'yup';
import { findingIds } from '../../core/findings/index.js';
import { defaultCeilings } from '../../core/policy/ceilings.js';
import {
  defaultPolicy,
  largerFilesPolicies,
  markupPolicies,
  metadataPolicies,
} from '../../core/policy/policy.js';
import type { Policy } from '../../core/policy/policy.js';
import {
  numberFrom,
  oneOf,
  settingsOf,
  shortText,
  textList,
  wholeNumber,
  yesOrNo,
} from './checks.js';

const bytes = () => wholeNumber(1_000, 1_000_000_000);
const pixels = () => wholeNumber(1, 100_000);

const rule = settingsOf({
  selector: shortText(),
  address: shortText(),
  group: shortText(),
  zoom: numberFrom(1, 8),
  minimum: pixels(),
  exempt: yesOrNo(),
  reason: shortText().required('a reason, which is shown wherever the rule applies'),
})
  .test('chooses', 'a rule with selector, address or group (what it applies to)', (value) =>
    [value.selector, value.address, value.group].some((pattern) => pattern !== undefined),
  )
  .test('allows', 'a rule with zoom, minimum or exempt (what it allows)', (value) =>
    [value.zoom, value.minimum, value.exempt].some((allowed) => allowed !== undefined),
  );

const mute = settingsOf({
  finding: shortText()
    .required('the id of a finding (docs/findings.md lists them)')
    .test('known', 'the id of a finding (docs/findings.md lists them)', (id) => findingIds.has(id)),
  address: shortText(),
  group: shortText(),
  reason: shortText().required('a reason, which is shown beside the findings'),
});

/** The policy in the config file. */
export const policySchema = settingsOf({
  density: numberFrom(0.5, 8),
  formats: array()
    .of(oneOf(['jpeg', 'png', 'webp', 'avif', 'gif'] as const).required())
    .typeError('a list of formats'),
  similarity: numberFrom(0.5, 0.9999),
  quality: settingsOf({ least: wholeNumber(1, 100), most: wholeNumber(1, 100) }).test(
    'order',
    'qualities where least is not greater than most',
    ({ least = defaultPolicy.quality.least, most = defaultPolicy.quality.most }) =>
      // What is no quality at all is told as that.
      most < 1 || least <= most,
  ),
  widths: wholeNumber(1, 20),
  metadata: oneOf(metadataPolicies),
  markup: oneOf(markupPolicies),
  largerFiles: oneOf(largerFilesPolicies),
  worthwhile: settingsOf({ bytes: bytes(), share: numberFrom(0, 1) }),
  ownHosts: textList('a list of hosts'),
  ceilings: settingsOf({
    area: bytes(),
    content: bytes(),
    alarm: bytes(),
    never: bytes(),
    small: bytes(),
    smallWidth: pixels(),
    hero: bytes(),
    side: pixels(),
    heroSide: pixels(),
    page: bytes(),
    slides: wholeNumber(1, 1_000),
  }),
  rules: array().of(rule).typeError('a list of rules'),
  mute: array().of(mute).typeError('a list of findings to mute'),
});

/** Completes the policy of a config file with the defaults. */
export function policyOf({
  ceilings,
  quality,
  worthwhile,
  ...file
}: InferType<typeof policySchema>): Policy {
  return {
    ...defaultPolicy,
    ...given(file),
    quality: { ...defaultPolicy.quality, ...given(quality) },
    ceilings: { ...defaultCeilings, ...given(ceilings) },
    worthwhile: { ...defaultPolicy.worthwhile, ...given(worthwhile) },
  };
}

/** What is there of some settings. */
function given<Settings extends object>(settings: Settings) {
  const entries = Object.entries(settings).filter(([, value]) => value !== undefined);
  return Object.fromEntries(entries) as { [Name in keyof Settings]: NonNullable<Settings[Name]> };
}
