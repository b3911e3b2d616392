import { object, string } from 'yup';
import type { Options } from 'yargs';
import { defaultConfigFile } from './config-file.js';
import { hostMappings, shortText, wholeNumber, yesOrNo } from './checks.js';

/** The workspace that is used when nobody names one. */
const defaultWorkspace = '.zealous-lynx';

/** Options that every command has. */
export const commonOptions: Readonly<Record<string, Options>> = {
  workspace: {
    describe: `Folder that everything is kept in [${defaultWorkspace}]`,
    type: 'string',
    requiresArg: true,
  },
  config: {
    describe: `Config file [${defaultConfigFile}, if it is there]`,
    type: 'string',
    requiresArg: true,
  },
  json: { describe: 'Print one JSON document and nothing else', type: 'boolean' },
  quiet: { describe: 'No progress, and no log but errors', type: 'boolean' },
  verbose: { describe: 'Log everything, and show where an error came from', type: 'boolean' },
};

export const commonSchema = object({
  workspace: string().min(1, 'the path of a folder').default(defaultWorkspace),
  config: string().min(1, 'the path of a file'),
  json: yesOrNo().default(false),
  quiet: yesOrNo().default(false),
  verbose: yesOrNo().default(false),
});

/** Options that keep their meaning wherever they occur; each with its check. */
export const shared = {
  top: (rows: number, what: string) => ({
    option: {
      describe: `Show so many ${what} [${rows}]`,
      type: 'string',
      requiresArg: true,
    } as const,
    check: wholeNumber(1, 1_000_000).default(rows),
  }),
  label: (what: string) => ({
    option: {
      describe: `Name of the ${what} that is made`,
      type: 'string',
      requiresArg: true,
    } as const,
    check: shortText(),
  }),
  survey: {
    option: {
      describe: 'Label of the survey to use [the newest]',
      type: 'string',
      requiresArg: true,
    } as const,
    check: shortText(),
  },
  mapHost: {
    option: {
      describe: 'HOST=ADDRESS:PORT: where a host really is',
      type: 'string',
      array: true,
      requiresArg: true,
    } as const,
    check: hostMappings().default([]),
  },
};

/** `--map-host` as the browser wants it. */
export function hostMapOf(mappings: readonly string[]): Record<string, string> {
  return Object.fromEntries(
    mappings.map((mapping) => {
      const at = mapping.indexOf('=');
      return [mapping.slice(0, at), mapping.slice(at + 1)];
    }),
  );
}
