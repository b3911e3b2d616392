import { existsSync, readFileSync } from 'node:fs';
import { array, object } from 'yup';
import type { InferType } from 'yup';
import { SettingError, messageOf } from '../../core/base/errors.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import { builtInNetworks } from '../../core/visitors/network.js';
import type { Network } from '../../core/visitors/network.js';
import type { Policy } from '../../core/policy/policy.js';
import { defaultViews } from '../../core/visitors/view.js';
import type { View } from '../../core/visitors/view.js';
import type { Budget } from '../../core/budgets/budget.js';
import { accessSchema } from './access.js';
import { alarmsSchema } from './alarms.js';
import { budgetsOf, budgetsSchema } from './budgets.js';
import { numberFrom, settingsOf, shortText, textList, wholeNumber, yesOrNo } from './checks.js';
import { policyOf, policySchema } from './policy.js';

/** The default file. */
export const defaultConfigFile = 'zealous-lynx.config.yaml';

const view = settingsOf({
  name: shortText().required('a name'),
  width: wholeNumber(100, 10_000).required('a width in CSS pixels'),
  height: wholeNumber(100, 10_000).required('a height in CSS pixels'),
  density: numberFrom(0.5, 8).default(1),
  touch: yesOrNo().default(false),
  share: numberFrom(0, 1).required('a share of the audience from 0 to 1'),
});

const network = settingsOf({
  name: shortText().required('a name'),
  latency: numberFrom(0, 60_000).required('a round trip in milliseconds'),
  down: numberFrom(0, 100_000_000).required('kilobits a second'),
  up: numberFrom(0, 100_000_000).required('kilobits a second'),
});

const group = settingsOf({
  name: shortText().required('a name'),
  pages: textList('patterns like /journal/*').required('patterns like /journal/*'),
});

/** The part of the config file that is the same for every command. */
export const fileSchema = object({
  views: array()
    .of(view)
    .typeError('a list of views')
    .min(1, 'at least one view')
    .max(20, 'at most 20 views')
    .test('shares', 'views whose shares add up to 1', (views) => {
      const sum = views?.reduce((all, one) => all + (one?.share ?? 0), 0);
      return sum === undefined || Math.abs(sum - 1) < 0.001;
    })
    .test('names', 'views with different names', (views) => {
      return !views || new Set(views.map((one) => one?.name)).size === views.length;
    }),
  networks: array().of(network).typeError('a list of networks'),
  policy: policySchema,
  groups: array().of(group).typeError('a list of page groups'),
  access: accessSchema,
  budgets: budgetsSchema,
  alarms: alarmsSchema,
});

export type FileContents = InferType<typeof fileSchema>;

/** The settings that only the config file can hold, with defaults for those it leaves out. */
export interface FileSettings {
  readonly views: readonly View[];
  readonly networks: readonly Network[];
  readonly policy: Policy;
  /** Page groups named by a person. */
  readonly groups: readonly NamedGroup[];
  /** The credentials in the file; values may still be names of variables. */
  readonly access: FileContents['access'];
  readonly budgets: readonly Budget[];
  /** Who is told of alarms; secrets may still be names of variables. */
  readonly alarms: FileContents['alarms'];
}

/** Fills in the defaults for everything a file leaves out. */
export function completed(file: FileContents): FileSettings {
  return {
    views: file.views ?? defaultViews,
    groups: file.groups ?? [],
    access: file.access,
    budgets: budgetsOf(file.budgets),
    alarms: file.alarms,
    networks: [...(file.networks ?? []), ...builtInNetworks],
    policy: policyOf(file.policy),
  };
}

/**
 * Reads a config file into plain values; no file is an empty one, unless it was asked for by name.
 *
 * @throws SettingError when it cannot be read or is no YAML mapping.
 */
export async function readConfigFile(name: string | undefined): Promise<Record<string, unknown>> {
  const path = name ?? defaultConfigFile;
  if (!existsSync(path)) {
    if (name === undefined) return {};
    throw new SettingError(`there is no config file ${path}`, {
      hint: 'check --config, or leave it out',
    });
  }
  const { parseYaml, placeOf } = await import('./yaml.js');
  try {
    const found: unknown = parseYaml(readFileSync(path, 'utf8')) ?? {};
    if (typeof found === 'object' && !Array.isArray(found)) return found as Record<string, unknown>;
    throw new SettingError(`${path} is not a mapping of settings`, {
      hint: 'write one setting per line, like pages: 100',
    });
  } catch (error) {
    if (error instanceof SettingError) throw error;
    const where = placeOf(error);
    const place = where ? ` (line ${where.line}, column ${where.col})` : '';
    throw new SettingError(`${path} cannot be read${place}: ${messageOf(error)}`, {
      hint: 'correct the file, or name another one with --config',
      cause: error,
    });
  }
}
