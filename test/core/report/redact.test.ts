import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Redaction } from '../../../src/core/report/redact.js';

function redacted<Value>(value: Value, own = 'bay.test'): Value {
  const redaction = new Redaction(own);
  redaction.learn(value);
  return redaction.apply(value);
}

describe('a redacted document', () => {
  it('calls hosts by numbers, the same everywhere, and has no query strings and no headers', () => {
    const document = {
      url: 'https://bay.test/kite?token=1#top',
      'http://cdn.drift.test:81/a.js?x=2': 7,
      told: 'cdn.drift.test:81 sends 2 files; see https://bay.test/two?y=3, and /three?z=4 (drift.test.org)',
      headers: [{ name: 'set-cookie', value: 'secret' }],
      list: [{ headers: { server: 'kite' } }, null, 3],
    };
    expect(redacted(document)).toEqual({
      url: 'https://site/kite',
      'http://host-1/a.js': 7,
      told: 'host-1 sends 2 files; see https://site/two and /three (drift.test.org)',
      headers: [],
      list: [{ headers: {} }, null, 3],
    });
  });

  it('takes a host for no other that it is part of', () => {
    const { told } = redacted({
      urls: ['https://test.example/', 'https://a.test.example/'],
      told: 'test.example, a.test.example, b.test.example and mytest.example',
    });
    expect(told).toBe('host-1, host-2, b.test.example and mytest.example');
  });

  it('keeps nothing of any address but its path', () => {
    const label = fc.stringMatching(/^[a-z]{3,12}$/);
    fc.assert(
      fc.property(label, label, label, (host, path, secret) => {
        fc.pre(!`site host-1 https ${path}`.includes(host) && !`/${path}`.includes(secret));
        fc.pre(!'site host-1 https told: .test'.includes(secret) && secret !== host);
        const address = `https://${host}.test/${path}?${secret}=${secret}`;
        const text = JSON.stringify(redacted({ told: `told: ${address}`, [address]: 1 }));
        expect(text).not.toContain(`${host}.test`);
        expect(text).not.toContain(secret);
        expect(text).toContain(`/${path}`);
      }),
    );
  });
});
