import { describe, expect, it } from 'vitest';
import { rankCsv } from '../../../src/output/csv/rank.js';
import { rankMarkdown } from '../../../src/output/markdown/rank.js';
import { drawRanking } from '../../../src/output/terminal/rank.js';
import { groupings } from '../../../src/core/rank/groupings.js';
import { rankViewOf } from '../../support/ranked.js';
import { plainSketch } from '../../support/survey-facts.js';

const screen = { width: 120, colour: false };
const sketches = [
  { ...plainSketch, bytes: 1_078_605, best: 40_000 },
  { ...plainSketch, bytes: 9_000, thirdParty: true },
  { ...plainSketch, readable: false },
];

describe('a ranking as text', () => {
  it('begins with what an average visit is sent, needs and wastes, and rounds', () => {
    const text = drawRanking(rankViewOf(sketches), screen);
    expect(text).toMatch(
      /An average visit is sent 1\.0\d MB of images, needs \d+ kB and wastes 1\.\d\d MB/,
    );
    expect(text).toContain('another 900 B cannot be judged');
    expect(text).toContain("Third parties, whose images the site's owner cannot change: ");
    expect(text).toContain("Next: zealous-lynx explain 'http://a.test/0-0.jpg'");
  });

  it.each(groupings)('by %s fits the screen, and names what it leaves out', (by) => {
    const text = drawRanking(rankViewOf(sketches, { by, top: 1 }), screen);
    for (const line of text.split('\n').filter((one) => !one.startsWith('?')))
      expect(line.length).toBeLessThanOrEqual(120);
    expect(text).toMatch(by === 'cause' ? /cause/ : /Also found \(number of pictures\): /);
  });

  it('says the same rows in CSV and Markdown', () => {
    const view = rankViewOf(sketches, { by: 'image' });
    const [heading, ...rows] = rankCsv(view).split('\r\n');
    expect(heading).toMatch(/^image,thirdParty,files,pages,sentBytes,neededBytes,wasteBytes/);
    expect(rows).toHaveLength(3);
    const table = rankMarkdown(view);
    expect(table.split('\n').filter((line) => line.startsWith('| '))).toHaveLength(5);
    expect(table).toContain('1.08 MB');
  });
});
