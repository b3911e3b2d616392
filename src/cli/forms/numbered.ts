import { join, parse } from 'node:path';

/** `waterfall.svg` of the second page is `waterfall-2.svg`. */
export function numbered(file: string, number: number): string {
  const { dir, name, ext } = parse(file);
  return join(dir, `${name}-${number}${ext}`);
}
