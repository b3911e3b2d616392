import { ValidationError } from 'yup';
import type { AnyObjectSchema } from 'yup';
import { SettingError } from '../../core/base/errors.js';
import { secretSettings } from './access.js';
import { nearest } from '../nearest.js';
import { completed, defaultConfigFile, fileSchema, readConfigFile } from './config-file.js';
import type { FileContents, FileSettings } from './config-file.js';
import { flagOf, variableOf, variablePrefix } from './option.js';

/** Variables with this prefix that are no settings of a command. */
const ownVariables = new Set(['ZEALOUS_LYNX_BROWSER', 'ZEALOUS_LYNX_CACHE']);

/** The source of a setting's value, in words that lead a person to it. */
type Sources = Map<string, string>;

/**
 * The settings of one call: flags, then the environment, then the config file, then the defaults of
 * the schema.
 *
 * @param flags what was given on the command line, by setting; `undefined` for what was not
 * @param schema the settings of the command; its defaults apply last
 * @param known names that any command knows, which may stand in the config file
 * @throws SettingError for the first value that is not allowed: where it stands, what was found, and
 *   what is allowed.
 */
export async function resolveSettings(
  flags: Readonly<Record<string, unknown>>,
  environment: NodeJS.ProcessEnv,
  schema: AnyObjectSchema,
  known: ReadonlySet<string>,
): Promise<{ settings: Record<string, unknown>; file: FileSettings }> {
  const names = Object.keys(schema.fields);
  const sources: Sources = new Map();
  const configName = (flags['config'] ?? environment[`${variablePrefix}CONFIG`]) as
    string | undefined;
  const contents = await readConfigFile(configName);
  const fileName = configName ?? defaultConfigFile;
  refuseUnknown(contents, fileName, new Set([...known, ...Object.keys(fileSchema.fields)]));
  const values: Record<string, unknown> = {};
  for (const name of names) {
    const variable = variableOf(name);
    const flag = flags[name];
    // What stands by its position in a call has no dashes.
    if (flag !== undefined) set(name, flag, known.has(name) ? `--${flagOf(name)}` : name);
    else if (!known.has(name)) continue;
    else if (environment[variable] !== undefined) set(name, environment[variable], variable);
    else if (contents[name] !== undefined) set(name, contents[name], `${fileName}: ${name}`);
  }
  function set(name: string, value: unknown, source: string): void {
    values[name] = value;
    sources.set(name, source);
  }
  const settings = check(schema, values, sources, fileName);
  const ofFile = Object.keys(fileSchema.fields).map((name) => [name, contents[name]] as const);
  const inFile = check(fileSchema, Object.fromEntries(ofFile), new Map(), fileName);
  return { settings, file: completed(inFile as FileContents) };
}

/** Variables that look like settings but are not; mostly typing errors. */
export function unknownVariables(
  environment: NodeJS.ProcessEnv,
  known: ReadonlySet<string>,
): string[] {
  const variables = new Set([...known].map(variableOf));
  return Object.keys(environment).filter(
    (name) => name.startsWith(variablePrefix) && !variables.has(name) && !ownVariables.has(name),
  );
}

function check(
  schema: AnyObjectSchema,
  values: Record<string, unknown>,
  sources: Sources,
  fileName: string,
): Record<string, unknown> {
  try {
    return schema.validateSync(values, { abortEarly: true }) as Record<string, unknown>;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const path = error.path ?? '';
    const top = path.split(/[.[]/, 1)[0]!;
    if (
      !sources.has(top) &&
      path === top &&
      values[top] === undefined &&
      !(top in fileSchema.fields)
    )
      throw new SettingError(`--${flagOf(top)} is missing: expected ${error.message}`, {
        cause: error,
      });
    const where = sources.get(top) ?? `${fileName}: ${path}`;
    const params = error.params as { originalValue?: unknown; value?: unknown } | undefined;
    const found = params?.originalValue ?? params?.value;
    const shown = found === undefined ? 'nothing' : JSON.stringify(found).slice(0, 120);
    const told = secretSettings.has(top) ? 'something' : shown;
    throw new SettingError(`${where}: expected ${error.message}, found ${told}`, {
      cause: error,
    });
  }
}

function refuseUnknown(
  file: Readonly<Record<string, unknown>>,
  fileName: string,
  known: ReadonlySet<string>,
): void {
  for (const name of Object.keys(file)) {
    if (known.has(name)) continue;
    const meant = nearest(name, [...known]);
    throw new SettingError(`${fileName}: there is no setting ${name}`, {
      hint: meant ? `did you mean ${meant}?` : `there are: ${[...known].join(', ')}`,
    });
  }
}
