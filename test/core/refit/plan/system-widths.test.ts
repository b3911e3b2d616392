import { describe, expect, it } from 'vitest';
import type { OwnChoice } from '../../../../src/core/refit/plan/own-choices.js';
import { planSystemWidths, systemPath } from '../../../../src/core/refit/plan/system-widths.js';
import { defaultViews } from '../../../../src/core/visitors/view.js';

const [phone, , laptop] = defaultViews as [OwnChoice['view'], OwnChoice['view'], OwnChoice['view']];

function choiceOf(view: OwnChoice['view'], widths: readonly number[]): OwnChoice {
  const candidates = widths.map((width) => ({ url: `http://a.test/kite-${width}.jpg`, width }));
  return {
    ...{ candidates, picture: 'kite', view, where: '/', slot: 'main > img', weight: 1 },
    placed: {} as OwnChoice['placed'],
  };
}

describe('the widths that a site should make as well', () => {
  const policy = { widths: 5 };

  it('are those that are asked for and not near enough to one that it makes', () => {
    const choices = [phone, laptop].map((view) => choiceOf(view, [300, 1_000, 3_000]));
    // 390 × 3 = 1170 pixels on a phone, 500 on a laptop.
    const sizes = '(max-width: 600px) 100vw, 500px';
    const { all, of, pathOf } = planSystemWidths(choices, () => sizes, policy);
    expect(all).toEqual([500, 1_170]);
    expect(of('http://a.test/kite-3000.jpg')).toEqual([500, 1_170]);
    expect(of('http://a.test/kite-300.jpg')).toEqual([]);
    expect(pathOf('http://a.test/kite-3000.jpg', { width: 500, height: 250 })).toBe('kite-500.jpg');
    const near = [phone, laptop].map((view) => choiceOf(view, [520, 1_250, 3_000]));
    expect(planSystemWidths(near, () => sizes, policy).all).toEqual([]);
  });

  it('are never wider than the widest that there is, nor more than the policy says', () => {
    const choices = [phone, laptop].map((view) => choiceOf(view, [300, 400]));
    expect(planSystemWidths(choices, () => '100vw', policy).all).toEqual([]);
    const many = [200, 300, 400, 500].map((width) => ({
      ...choiceOf({ ...laptop, width }, [100, 3_000]),
      weight: width,
    }));
    expect(planSystemWidths(many, () => '100vw', { widths: 2 }).all).toHaveLength(2);
  });
});

describe('the path of a width that a site will make', () => {
  it.each([
    ['http://a.test/up/kite-1536x1152.jpg', 'up/kite-768x576.jpg'],
    ['http://a.test/up/kite_w1536.webp', 'up/kite_w768.webp'],
    ['http://a.test/w_1536/kite.jpg', 'w_768/kite.jpg'],
    ['http://a.test/kite.jpg?w=1536', null],
    ['http://a.test/kite.jpg', null],
    ['http://a.test/kite-15360.jpg', null],
  ])('follows that of the others: %s', (url, path) => {
    expect(systemPath({ url, width: 1_536 }, { width: 768, height: 576 })).toBe(path);
  });
});
