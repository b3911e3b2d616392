import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sparkline } from '../../../src/output/words/history.js';
import { shellWord } from '../../../src/output/words/shell-word.js';
import { inPlainCharacters } from '../../../src/output/terminal/plain-characters.js';

describe('a sparkline', () => {
  it('goes from nothing to the largest value, the newest last', () => {
    expect(sparkline([0, 50, 100], 10)).toBe('▁▅█');
    expect(sparkline([1, 2, 3, 4], 2)).toBe('▆█');
    expect(sparkline([0, 0], 10)).toBe('▁▁');
    expect(sparkline([], 10)).toBe('');
  });

  it('is as wide in plain characters', () => {
    const plain = inPlainCharacters(sparkline([0, 1, 2, 3, 4, 5, 6, 7], 10));
    expect(plain).toHaveLength(8);
    expect(plain).not.toContain('?');
  });
});

describe('a word of a command', () => {
  it('is one word for a shell, whatever a page says', () => {
    expect(shellWord('http://a.test/kite.jpg')).toBe('http://a.test/kite.jpg');
    expect(shellWord('http://a.test/?a=1&b=$(id)')).toBe("'http://a.test/?a=1&b=$(id)'");
    expect(shellWord("it's")).toBe("'it'\\''s'");
    fc.assert(
      fc.property(fc.string(), (text) => {
        const word = shellWord(text);
        const bare = /^'/.test(word) ? word.slice(1, -1).replaceAll("'\\''", '') : word;
        expect(bare).not.toContain("'");
        if (!/^'/.test(word)) expect(word).toMatch(/^[\w@%+=:,./-]+$/);
      }),
    );
  });
});
