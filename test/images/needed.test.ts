import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../src/core/policy.js';
import { readImageFacts } from '../../src/images/facts.js';
import { natureOf } from '../../src/images/nature.js';
import { encodeNeeded } from '../../src/images/needed.js';
import { animation, drawing, photograph } from '../support/pictures.js';

async function neededFor(body: Buffer, width: number, height: number, policy = defaultPolicy) {
  const file = await readImageFacts(body, '');
  return encodeNeeded(body, file, { width, height }, policy);
}

describe('natureOf', () => {
  it('tells drawings from photographs and animations', async () => {
    expect(await natureOf(await photograph(300, 200).png().toBuffer(), 1)).toBe('photograph');
    expect(await natureOf(await drawing(300, 200).png().toBuffer(), 1)).toBe('flat');
    expect(await natureOf(await animation(20, 3), 3)).toBe('animation');
  });
});

describe('encodeNeeded', () => {
  it('makes a photograph at its need in the smallest allowed format', async () => {
    const body = await photograph(1200, 800).jpeg({ quality: 95 }).toBuffer();
    const { format, body: result, steps } = await neededFor(body, 300, 200);
    const made = await sharp(result).metadata();
    expect(made).toMatchObject({ width: 300, height: 200, format });
    expect(steps.best).toBe(result.length);
    expect(steps.best).toBeLessThanOrEqual(steps.sameFormat);
    expect(steps.pixelRatio).toBeLessThan(0.25);
    expect(made.exif).toBeUndefined();
  });

  it('keeps the format when the policy allows no other', async () => {
    const body = await photograph(600, 400).jpeg().toBuffer();
    const { format, steps } = await neededFor(body, 300, 200, { ...defaultPolicy, formats: [] });
    expect(format).toBe('jpeg');
    expect(steps.best).toBe(steps.sameFormat);
  });

  it('keeps every pixel of a drawing', async () => {
    const source = drawing(240, 160);
    const { body, format } = await neededFor(await source.png().toBuffer(), 240, 160);
    expect(format).toBe('webp');
    const made = await sharp(body).removeAlpha().raw().toBuffer();
    expect(made.equals(await source.removeAlpha().raw().toBuffer())).toBe(true);
  });

  it('keeps transparency', async () => {
    const clear = { r: 200, g: 40, b: 40, alpha: 0.5 };
    const body = await sharp({
      create: { width: 200, height: 200, channels: 4, background: clear },
    })
      .png()
      .toBuffer();
    const { body: result } = await neededFor(body, 100, 100);
    expect((await sharp(result).metadata()).hasAlpha).toBe(true);
  });

  it('keeps an animation an animation', async () => {
    const { body, format } = await neededFor(await animation(120, 4), 60, 60);
    expect(['webp', 'gif']).toContain(format);
    expect(await sharp(body, { animated: true }).metadata()).toMatchObject({ pages: 4, width: 60 });
  });

  it('turns a picture upright before it is reduced', async () => {
    const lying = await photograph(400, 200).withMetadata({ orientation: 6 }).jpeg().toBuffer();
    const { body } = await neededFor(lying, 100, 200);
    const made = await sharp(body).metadata();
    expect([made.width, made.height, made.orientation ?? 1]).toEqual([100, 200, 1]);
  });

  it('gives the same bytes every time', async () => {
    const body = await photograph(500, 400).jpeg().toBuffer();
    const [one, other] = [await neededFor(body, 250, 200), await neededFor(body, 250, 200)];
    expect(one.body.equals(other.body)).toBe(true);
  });

  it('fails on a truncated file instead of inventing the rest', async () => {
    const body = await photograph(800, 600).jpeg().toBuffer();
    const cut = body.subarray(0, body.length >> 1);
    await expect(neededFor(cut, 200, 150)).rejects.toThrow();
  });
});
