import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';

const root = fileURLToPath(new URL('../../../', import.meta.url));

it('every document that the program prints has a schema', () => {
  const printed = readdirSync(join(root, 'src'), { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith('.ts'))
    .flatMap((path) => [
      ...readFileSync(join(root, 'src', path), 'utf8').matchAll(/'zealous-lynx\.([a-z-]+)\/\d'/g),
    ])
    .map(([, name]) => name!);
  expect(new Set(printed).size).toBeGreaterThan(20);
  const schemas = readdirSync(join(root, 'schemas')).map((name) => name.split('.')[0]!);
  expect([...new Set(printed)].sort()).toEqual(schemas.sort());
});
