import { readFileSync, readdirSync } from 'node:fs';
import { expect, it } from 'vitest';

const folder = new URL('../../schemas/', import.meta.url);

it.each(readdirSync(folder))('%s names itself and its dialect, and has a title', (name) => {
  const schema = JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as Record<string, unknown>;
  expect(schema['$id']).toBe(`https://zealous-lynx.test/schemas/${name}`);
  expect(schema['$schema']).toBe('http://json-schema.org/draft-07/schema#');
  expect(schema['title']).toEqual(expect.any(String));
});
