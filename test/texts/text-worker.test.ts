import { Tinypool } from 'tinypool';
import { afterAll, describe, expect, it } from 'vitest';
import type { TextFacts } from '../../src/core/survey/resource.js';

const pool = new Tinypool({
  filename: new URL('../../dist/bundle/texts/text-worker.js', import.meta.url).href,
  minThreads: 0,
  maxThreads: 1,
  idleTimeout: 60_000,
});

describe('the thread of texts', () => {
  afterAll(() => pool.destroy());

  it('stays when it has loaded what it works with', async () => {
    expect(await pool.run(undefined, { name: 'prepare' })).toBeUndefined();
    const [thread] = pool.threads;
    const facts = (await pool.run(
      {
        contentHash: 'x',
        body: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><!-- bay --></svg>'),
        kind: 'vector',
        minifies: true,
      },
      { name: 'facts' },
    )) as TextFacts;
    expect(facts.minified?.bytes).toBe('<svg xmlns="http://www.w3.org/2000/svg"/>'.length);
    expect(pool.threads[0]).toBe(thread);
  });
});
