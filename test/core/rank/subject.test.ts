import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import { findingKind } from '../../../src/core/findings/index.js';
import type { RankedImage } from '../../../src/core/rank/ranked-image.js';
import { rowsOf } from '../../../src/core/rank/rank-view.js';
import { rankImages } from '../../../src/core/rank/ranking.js';
import { findSubject } from '../../../src/core/rank/subject.js';
import { pageOf, plainSketch, surveyOf } from '../../support/survey-facts.js';

const facts = surveyOf([plainSketch, { ...plainSketch, bytes: 5_000 }]);
const { images } = rankImages(facts, defaultPolicy);
const find = (text: string) => findSubject(text, images, facts.pages);

describe('what is to be explained', () => {
  it.each([
    ['http://a.test/0-0.jpg', 'hash-0'],
    ['/0-0.jpg', 'hash-0'],
    ['1-0.jpg', 'hash-1'],
    ['ul > li:nth-of-type(2) > img', 'hash-1'],
  ])('%s is an image', (text, contentHash) => {
    const found = find(text);
    expect(found.kind === 'image' && found.image.file.contentHash).toBe(contentHash);
  });

  it.each([pageOf(1), '/1'])('%s is a page', (text) => {
    const found = find(text);
    expect(found.kind === 'page' && found.page.url).toBe(pageOf(1));
  });

  it('may be the slot of a row of rank, or the id of a finding', () => {
    const ranking = rankImages(facts, defaultPolicy);
    const query = {
      by: 'family',
      sort: 'waste',
      top: 9,
      filter: {},
      policy: defaultPolicy,
    } as const;
    const { rows } = rowsOf(ranking, query);
    const findAmong = (text: string) => findSubject(text, images, facts.pages, () => rows);
    for (const text of [rows[0]!.family!.slot, 'ul > … > img']) {
      const found = findAmong(text);
      expect(found.kind === 'family' && found.rows[0]).toBe(rows[0]);
    }
    const background = rows.map((row) => ({
      ...row,
      family: row.family && { ...row.family, kind: 'background' },
    }));
    const slot = `${rows[0]!.family!.slot.replace(/^body > /, '')} (background)`;
    expect(findSubject(slot, images, facts.pages, () => background).kind).toBe('family');
    for (const text of ['ceiling-bytes', findingKind('ceiling-bytes')!.title])
      expect(findAmong(text)).toMatchObject({ kind: 'finding', id: 'ceiling-bytes', images: [] });
  });

  it('may be a selector as a person writes it, or what was cut when it was printed', () => {
    const attributes = [
      ['class', 'wide photo'],
      ['id', 'hero'],
    ] as const;
    const element = { attributes, picture: null };
    const own = rankImages(
      surveyOf([plainSketch], [], () => element),
      defaultPolicy,
    ).images;
    const kindOf = (text: string) => {
      try {
        return findSubject(text, own, facts.pages).kind;
      } catch {
        return null;
      }
    };
    const meant = ['#hero', 'img.photo', '.wide.photo', 'ul img#hero', 'ul > li > .photo', 'img'];
    for (const text of [...meant, '[id=hero]', 'img[class*=pho]', 'li > :not(.narrow)'])
      expect([text, kindOf(text)]).toEqual([text, 'image']);
    for (const text of ['#other', 'img.narrow', 'div .photo', 'a.photo', 'ul > img', 'li:not('])
      expect([text, kindOf(text)]).toEqual([text, null]);
    expect(kindOf('ul > li:nth…img')).toBe('image');
    expect(kindOf('/0…0.jpg')).toBe('image');
  });

  it('is refused with the nearest name where there is no such thing', () => {
    expect(() => find('/img/0-0.jpg')).toThrow(
      expect.objectContaining({ code: 'NOT_FOUND', hint: 'did you mean http://a.test/0-0.jpg?' }),
    );
    const grouped = facts.pages.map((page) => ({ ...page, group: 'pages headed Makers' }));
    for (const text of ['pages headed Makers', 'pages…Makers'])
      expect(() => findSubject(text, images, grouped)).toThrow(
        expect.objectContaining({
          hint: 'it is a page group: give it to zealous-lynx rank --group',
        }),
      );
    expect(() => find('#nothing')).toThrow(
      expect.objectContaining({
        hint: 'zealous-lynx rank --by image lists the images, and rank --by finding the findings',
      }),
    );
  });

  it('is refused where the start of a content hash fits several files', () => {
    const named = [0, 1].map(
      (digit) =>
        ({
          file: { contentHash: `abcdef${digit}` },
          ...{ url: '', urls: [], placed: [] },
        }) as unknown as RankedImage,
    );
    expect(() => findSubject('abcdef', named, [])).toThrow(
      expect.objectContaining({ code: 'USAGE', hint: 'give more digits' }),
    );
    const found = findSubject('abcdef1', named, []);
    expect(found.kind === 'image' && found.image.file.contentHash).toBe('abcdef1');
  });
});
