import { describe, expect, it } from 'vitest';
import {
  inPlainCharacters,
  showsAllCharacters,
} from '../../../src/output/terminal/plain-characters.js';
import { table } from '../../../src/output/terminal/style.js';

describe('plain characters', () => {
  it('are of the same number, and say what can be said', () => {
    const text = '1500×1000 → 3.4 % · site’s ████▌ −12 kB … Größe';
    const told = inPlainCharacters(text);
    expect(told).toBe("1500x1000 > 3.4 % * site's ##### -12 kB ~ Gr??e");
    expect(told).toHaveLength(text.length);
  });

  it.each([
    [{}, true],
    [{ LANG: 'pt_PT.UTF-8' }, true],
    [{ LANG: 'en_IN.utf8' }, true],
    [{ LANG: 'C' }, false],
    [{ LANG: 'C.UTF-8', LC_ALL: 'POSIX' }, false],
    [{ LANG: 'de_DE.ISO-8859-1' }, false],
  ])('are wanted by the locale %j: all of them %s', (environment, expected) => {
    expect(showsAllCharacters(environment)).toBe(expected);
  });
});

describe('a table', () => {
  const columns = [
    { title: 'image' },
    { title: 'files', spare: true },
    { title: 'need', spare: true },
    { title: 'waste' },
  ];
  const rows = [['/img/a-kite-with-a-long-name-over-the-bay.jpg', '12', '1200×800', '1.20 MB']];
  const widthOf = (width: number) => {
    const lines = table({ width, colour: false }, columns, rows).split('\n');
    return { heading: lines[0]!, most: Math.max(...lines.map((line) => line.length)) };
  };

  it('leaves out spare columns, the last first, and then cuts the widest text', () => {
    expect(widthOf(100).heading).toMatch(/image +files +need +waste/);
    expect(widthOf(64).heading).toMatch(/image +files +waste/);
    expect(widthOf(60).heading).toMatch(/image +waste/);
    for (const width of [100, 64, 60, 40, 24])
      expect(widthOf(width).most).toBeLessThanOrEqual(width);
  });
});
