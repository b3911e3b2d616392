import {
  shortText,
  workspacePlace,
  filePath,
  hostMappings,
  textList,
  wholeNumber,
  yesOrNo,
} from './checks.js';
import { option } from './option.js';

/** Options that every command has. */
export const commonOptions = {
  workspace: option(
    'Folder in which everything is kept, or a PostgreSQL database: postgres://user@host/database',
    workspacePlace().default('.zealous-lynx'),
  ),
  config: option('Config file', filePath(), 'zealous-lynx.config.yaml, if there is one'),
  json: option('Print one JSON document and nothing else', yesOrNo().default(false)),
  quiet: option('Show no progress, and log errors only', yesOrNo().default(false)),
  verbose: option(
    'Log every step and decision, and show where an error came from',
    yesOrNo().default(false),
  ),
};

/** Options with the same meaning in every command. */
export const shared = {
  top: (rows: number, what: string) =>
    option(`Show at most this many ${what}`, wholeNumber(1, 1_000_000).default(rows)),
  label: (what: string) => option(`Name for the new ${what}`, shortText(), 'numbered'),
  survey: option('Label of the survey to use', shortText(), 'the newest'),
  mapHost: option(
    'HOST=ADDRESS:PORT: connect to this address for this host (* may stand in the host)',
    hostMappings().default([]),
  ),
  memory: option(
    'Megabytes that all processes of the browser may have together; the page that takes too much is stopped',
    wholeNumber(500, 1_000_000),
    'half of the machine, at most 6,000',
  ),
  allowHost: option(
    'Let public pages use this host though it is on this machine or in its network (*.NAME: all below NAME)',
    textList('the name of a host').default([]),
  ),
};

/** `--memory` in bytes. */
export function memoryOf({ memory }: { readonly memory?: number | undefined }) {
  return { memory: memory === undefined ? undefined : memory * 1e6 };
}

/** `--map-host` and `--allow-host` as the tasks have them. */
export function hostsOf({
  mapHost,
  allowHost,
}: {
  readonly mapHost: readonly string[];
  readonly allowHost: readonly string[];
}) {
  const hosts: Record<string, string> = Object.fromEntries(
    mapHost.map((mapping) => {
      const at = mapping.indexOf('=');
      return [mapping.slice(0, at), mapping.slice(at + 1)];
    }),
  );
  return { hosts, allowedHosts: allowHost };
}
