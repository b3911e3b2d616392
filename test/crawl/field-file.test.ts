import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { readAddressList } from '../../src/crawl/address-list.js';
import { parseField, readField } from '../../src/crawl/field-file.js';
import { temporaryFolder } from '../support/folder.js';

const csv = [
  'date,page,group,marker,p75,histogram,count',
  '2026-11-01,http://brindlebay.test/,,largestContentfulPaint,2300,,1200',
  '2026-11-01,,/makers/*,load,,0-1000:50 1000-2000:50,100',
  '2026-11-02,http://brindlebay.test/,,largestContentfulPaint,2100,,800',
  '2026-11-02,http://brindlebay.test/,,load,4100,,900',
].join('\n');

describe('a file of what visitors measured', () => {
  it('is read as CSV and as JSON', () => {
    const read = parseField(csv, 'visitors.csv');
    expect(read).toHaveLength(4);
    expect(read[1]).toEqual({
      ...{ date: '2026-11-01T00:00:00.000Z', page: null, group: '/makers/*', marker: 'load' },
      ...{ value: 1500, count: 100 },
    });
    const histogram = [
      { from: 0, to: 1000, count: 50 },
      { from: 1000, to: 2000, count: 50 },
    ];
    const json = JSON.stringify([
      { date: '2026-11-01', group: '/makers/*', marker: 'load', histogram, count: 100 },
    ]);
    expect(parseField(json, 'visitors.json')).toEqual([read[1]]);
  });

  it('weighs pages as a list of a survey, by the marker that counts the most visits', () => {
    const file = join(temporaryFolder(), 'visitors.csv');
    writeFileSync(file, csv);
    expect(readField(file)).toHaveLength(4);
    expect(readAddressList(file)).toEqual([{ url: 'http://brindlebay.test/', visits: 2000 }]);
  });

  it.each([
    ['2026-11-01,http://a.test/,,speed,1,,1', /line 2: there is no marker "speed"/],
    ['yesterday,http://a.test/,,load,1,,1', /"yesterday" is not a date/],
    ['2026-11-01,,,load,1,,1', /of a page or of a page group/],
    ['2026-11-01,kites,,load,1,,1', /"kites" is not an address/],
    ['2026-11-01,http://a.test/,,load,,,1', /it has no value/],
    ['2026-11-01,http://a.test/,,load,,5-1:3,1', /overlap/],
    ['2026-11-01,http://a.test/,,load,,much,1', /no class of a histogram/],
  ])('says what is wrong with %s', (line, words) => {
    const [heading] = csv.split('\n');
    expect(() => parseField(`${heading}\n${line}`, 'visitors.csv')).toThrow(words);
  });

  it('says what is wrong with JSON', () => {
    expect(() => parseField('[1', 'v.json')).toThrow(/v\.json is not JSON/);
    expect(() => parseField('{}', 'v.json')).toThrow(/not a list/);
    expect(() => parseField('[{"date":"2026-11-01"}]', 'v.json')).toThrow(/measurement 1/);
  });
});
