import { readFileSync } from 'node:fs';

const { name, version } = JSON.parse(
  readFileSync(new URL('../../../package.json', import.meta.url), 'utf8'),
) as { name: string; version: string };

/** The program's own name and version. */
export const program = { name, version } as const;
