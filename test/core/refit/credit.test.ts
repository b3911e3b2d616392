import { SaxesParser } from 'saxes';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filledIn, isEmpty, noCredit, xmpOf } from '../../../src/core/refit/credit.js';

describe('credits', () => {
  it('are filled in over what the file says, field by field', () => {
    const own = { ...noCredit, title: 'Kites', creator: 'A. Gull', keywords: ['sky'] };
    const given = { ...noCredit, title: 'Kites at noon', copyright: '© Brindle Bay' };
    expect(filledIn(own, given)).toEqual({
      ...{ title: 'Kites at noon', description: null, creator: 'A. Gull' },
      ...{ copyright: '© Brindle Bay', keywords: ['sky'] },
    });
    expect([isEmpty(noCredit), isEmpty(given)]).toEqual([true, false]);
  });

  it('are well-formed XML whatever they say', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.string({ unit: 'binary' }), (title, word) => {
        const packet = xmpOf({ ...noCredit, title, creator: word, keywords: [word, '<&">'] });
        const texts: string[] = [];
        const parser = new SaxesParser({ xmlns: true });
        parser.on('error', (error) => {
          // Signs that XML has no way to write are the codec's to refuse, not ours to break out by.
          if (!/disallowed character/.test(error.message)) throw error;
        });
        parser.on('text', (text) => texts.push(text));
        parser.write(packet.replace(/<\?xpacket[^]*?\?>/g, '')).close();
        expect(texts).toContain('<&">');
      }),
    );
  });
});
