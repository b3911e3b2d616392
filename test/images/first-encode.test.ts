import type { Sharp } from 'sharp';
import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import { readImageFacts } from '../../src/images/facts.js';
import { encodeFirst } from '../../src/images/first-encode.js';
import { encodeNeeded } from '../../src/images/needed.js';
import { animation, drawing, photograph, scene } from '../support/pictures.js';

/** What one encode tells of a picture, and what the search finds. */
async function bothOf(body: Buffer, width: number, height: number, policy = defaultPolicy) {
  const file = await readImageFacts(body, '');
  const first = await encodeFirst(body, file, { width, height }, policy);
  const needed = await encodeNeeded(body, file, { width, height }, policy, first?.drafts);
  return { first: first!, needed };
}

const asJpeg = (picture: Sharp) => picture.jpeg({ quality: 95 }).toBuffer();

describe('encodeFirst', () => {
  it('tells about the bytes of the file that the search finds', async () => {
    const { similarity } = defaultPolicy;
    const webp = { ...defaultPolicy, formats: ['webp' as const], similarity };
    const pictures = [
      await bothOf(await asJpeg(scene(900, 600)), 450, 300),
      await bothOf(await asJpeg(scene(900, 600)), 450, 300, webp),
      await bothOf(await asJpeg(photograph(600, 400)), 300, 200),
      await bothOf(await scene(600, 400).ensureAlpha(0.5).png().toBuffer(), 300, 200),
      await bothOf(await drawing(600, 400).png().toBuffer(), 300, 200),
    ];
    for (const { first, needed } of pictures) {
      expect(first.nature).toBe(needed.nature);
      expect(first.bytes / needed.steps.best).toBeGreaterThan(1 / 2);
      expect(first.bytes / needed.steps.best).toBeLessThan(2);
    }
  });

  it('tells it of a large picture from tiles', async () => {
    const body = await asJpeg(photograph(2000, 1500));
    const file = await readImageFacts(body, '');
    const at = async (width: number, height: number) =>
      (await encodeFirst(body, file, { width, height }, defaultPolicy))!;
    const [large, whole] = [await at(1800, 1350), await at(1600, 1200)];
    // The noise is the same everywhere: the bytes follow the pixels.
    const ratio = large.bytes / whole.bytes / (1.8 / 1.6) ** 2;
    expect(ratio).toBeGreaterThan(0.8);
    expect(ratio).toBeLessThan(1.25);
    // A draft of tiles is none of the whole.
    expect([large, whole].map(({ drafts }) => drafts.length)).toEqual([0, 1]);
  });

  it('makes the draft that the search begins with, which is not made again', async () => {
    const body = await asJpeg(scene(900, 600));
    const file = await readImageFacts(body, '');
    const need = { width: 450, height: 300 };
    const { drafts } = (await encodeFirst(body, file, need, defaultPolicy))!;
    const alone = await encodeNeeded(body, file, need, defaultPolicy);
    const after = await encodeNeeded(body, file, need, defaultPolicy, drafts);
    expect(after).toEqual(alone);
    expect(drafts).toHaveLength(1);
    // What nobody would make tells where it came from.
    const marked = drafts.map((one) => ({ ...one, bytes: one.bytes + 1 }));
    const { attempts } = await encodeNeeded(body, file, need, defaultPolicy, marked);
    expect(attempts.filter(({ isDraft }) => isDraft).map(({ bytes }) => bytes)).toEqual([
      drafts[0]!.bytes + 1,
    ]);
  });

  it('keeps no bytes of a draft, and makes none where no format asks for one', async () => {
    const body = await asJpeg(scene(300, 200));
    const { first } = await bothOf(body, 150, 100);
    expect(first.drafts.map((one) => one.body.length)).toEqual([0]);
    const { first: flat } = await bothOf(await drawing(300, 200).png().toBuffer(), 150, 100);
    expect(flat.drafts).toEqual([]);
  });

  it('tells nothing of an animation, and rejects what cannot be decoded', async () => {
    const moving = await animation(40, 3);
    const file = await readImageFacts(moving, '');
    expect(await encodeFirst(moving, file, { width: 20, height: 20 }, defaultPolicy)).toBe(
      undefined,
    );
    const body = await asJpeg(scene(300, 200));
    const whole = await readImageFacts(body, '');
    const cut = body.subarray(0, body.length >> 1);
    await expect(
      encodeFirst(cut, whole, { width: 150, height: 100 }, defaultPolicy),
    ).rejects.toThrow();
  });
});
