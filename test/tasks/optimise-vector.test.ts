import { describe, expect, it } from 'vitest';
import { optimiseVector } from '../../dist/src/tasks/vector/optimise-vector.js';

describe('optimiseVector', () => {
  it('leaves out what nobody sees, and keeps the names of parts', async () => {
    const body = Buffer.from(
      `<?xml version="1.0"?><!-- Drawn by hand --><svg xmlns="http://www.w3.org/2000/svg" width="40" height="40" viewBox="0 0 40 40"><metadata>a thing of an editor</metadata><g id="sail"><path fill="#e4572e" d="M 20.000000,2.000000 L 38.000000,20.000000 L 20.000000,38.000000 L 2.000000,20.000000 Z"/></g></svg>`,
    );
    const smaller = (await optimiseVector(body))!;
    expect(smaller.length).toBeLessThan(body.length * 0.6);
    expect(smaller.toString()).toContain('id="sail"');
    expect(smaller.toString()).not.toContain('editor');
  });

  it.each([
    ['as small as can be', '<svg xmlns="http://www.w3.org/2000/svg"/>'],
    ['broken', '<svg xmlns="http://www.w3.org/2000/svg"><g></svg>'],
    ['no vector', 'no drawing at all'],
    ['too long', `<svg xmlns="http://www.w3.org/2000/svg"><!--${'x'.repeat(1_000_001)}--></svg>`],
    [
      'a bomb of entities',
      `<!DOCTYPE svg [<!ENTITY a "${'x'.repeat(100)}">${Array.from({ length: 9 }, (_, at) => `<!ENTITY ${'bcdefghij'[at]} "${`&${'abcdefghi'[at]};`.repeat(10)}">`).join('')}]><svg xmlns="http://www.w3.org/2000/svg"><text>&j;</text></svg>`,
    ],
  ])('leaves a vector as it is that is %s', async (_, text) => {
    expect(await optimiseVector(Buffer.from(text))).toBeNull();
  });
});
