import { describe, expect, it } from 'vitest';
import { joined, wrapped } from '../../../src/output/terminal/style.js';

describe('a sentence', () => {
  const sentence = 'A kite that is 12 m wide needs a beach without trees.';

  it('is broken between words where the screen is narrower, each line as far in as the first', () => {
    expect(wrapped(sentence, { width: 40 }, 10)).toBe(
      ['A kite that is 12 m wide needs', 'a beach without trees.'].join('\n          '),
    );
  });

  it('stays as it is where there is room', () => {
    expect(wrapped(sentence, { width: sentence.length })).toBe(sentence);
  });

  it('keeps words that are longer than the screen whole', () => {
    const address = `http://brindlebay.test/${'kites/'.repeat(20)}`;
    expect(wrapped(`See ${address} for more.`, { width: 40 })).toBe(`See\n${address}\nfor more.`);
  });
});

describe('words that belong together', () => {
  it('stand on as many lines as it takes, and a line that goes on ends with a dot', () => {
    const screen = { width: 16, colour: false };
    expect(joined(['kites (12)', 'tails'], { ...screen, width: 40 })).toBe('kites (12) · tails');
    expect(joined(['kites (12)', 'tails', 'lines'], screen)).toBe('kites (12) ·\ntails · lines');
  });
});
