import { object } from 'yup';
import type { AnySchema, InferType } from 'yup';
import { record } from '../../core/base/record.js';

/**
 * One setting: what it does, and what it may be. The parser, the checks, the variables, the config file, the help, the
 * manual and the shell completion all follow from this.
 */
export interface Option<Check extends AnySchema = AnySchema> {
  readonly describe: string;
  /** The allowed values and the default. */
  readonly check: Check;
  /** The default in words, if it is not one fixed value. */
  readonly usual?: string | undefined;
  /** Its heading in the help. */
  readonly heading?: string | undefined;
}

export type Options = Readonly<Record<string, Option>>;

/** The settings from options, by name. */
export type SettingsOf<Declared extends Options> = {
  readonly [Name in keyof Declared]: InferType<Declared[Name]['check']>;
};

/** Declares an option. */
export function option<Check extends AnySchema>(
  describe: string,
  check: Check,
  usual?: string,
): Option<Check> {
  return { describe, check, usual };
}

/** Puts options under a heading of the help. */
export function under<Declared extends Options>(heading: string, options: Declared): Declared {
  return record(Object.keys(options), (name) => ({ ...options[name]!, heading })) as Declared;
}

/** The checks of options as one schema. */
export function schemaOf(options: Options) {
  return object(record(Object.keys(options), (name) => options[name]!.check));
}

/** Whether an option takes a value, several values, or none. */
export function kindOf({ check }: Option): 'value' | 'values' | 'switch' {
  if (check.type === 'boolean') return 'switch';
  return check.type === 'array' ? 'values' : 'value';
}

/** The default in words; nothing for switches that are off and empty lists. */
export function usualOf({ check, usual }: Option): string | undefined {
  if (usual !== undefined) return usual;
  const value = check.getDefault() as string | number | boolean | string[] | undefined;
  if (value === undefined || value === false) return undefined;
  if (value === true) return 'on';
  if (Array.isArray(value)) return value.length > 0 ? value.join(',') : undefined;
  return String(value);
}

/** The words that are allowed, where they can be listed. */
export function choicesOf({ check }: Option): readonly string[] {
  const description = check.describe() as Description;
  const inner = description.innerType ?? description;
  return (inner.oneOf ?? []).filter((word): word is string => typeof word === 'string');
}

interface Description {
  readonly oneOf?: readonly unknown[];
  readonly innerType?: Description;
}

/** The words about a check. */
export interface CheckNotes {
  /** The allowed values, in words. */
  readonly allowed?: () => string;
  /** What kind of path it names. */
  readonly path?: 'file' | 'folder';
}

export function notesOf({ check }: Option): CheckNotes {
  return (check.spec.meta ?? {}) as CheckNotes;
}

/** Whether something has to be given. */
export function isRequired({ check }: Option): boolean {
  return !check.spec.optional && check.getDefault() === undefined;
}

/** `mapHost` as it is written on the command line: `map-host`. */
export function flagOf(name: string): string {
  return name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
}

/** The prefix of the environment variables that settings are read from. */
export const variablePrefix = 'ZEALOUS_LYNX_';

/** The environment variable of a setting: `mapHost` is `ZEALOUS_LYNX_MAP_HOST`. */
export function variableOf(name: string): string {
  return variablePrefix + flagOf(name).replaceAll('-', '_').toUpperCase();
}
