import sharp from 'sharp';
import { mean } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import type { Policy } from '../../src/core/policy/policy.js';
import { readImageFacts } from '../../src/images/facts.js';
import { natureOf } from '../../src/images/nature.js';
import { encodeNeeded } from '../../src/images/needed.js';
import { animation, drawing, packedPhotograph, photograph, scene } from '../support/pictures.js';

async function neededFor(body: Buffer, width: number, height: number, policy = defaultPolicy) {
  const file = await readImageFacts(body, '');
  return encodeNeeded(body, file, { width, height }, policy);
}

/** A sky that gets darker from its middle, as JPEG. */
function smooth(width: number, height: number): Promise<Buffer> {
  const drawn = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><defs>
    <radialGradient id="sky"><stop offset="0" stop-color="#fe8"/><stop offset="1" stop-color="#048"/></radialGradient>
  </defs><rect width="${width}" height="${height}" fill="url(#sky)"/></svg>`;
  return sharp(Buffer.from(drawn)).jpeg({ quality: 98 }).toBuffer();
}

describe('natureOf', () => {
  it('tells drawings from photographs and animations', async () => {
    const natureFor = async (body: Buffer) => natureOf(body, await readImageFacts(body, ''));
    expect(await natureFor(await photograph(300, 200).png().toBuffer())).toBe('photograph');
    expect(await natureFor(await drawing(300, 200).png().toBuffer())).toBe('drawing');
    expect(await natureFor(await drawing(300, 200).jpeg().toBuffer())).toBe('photograph');
    expect(await natureFor(await animation(20, 3))).toBe('animation');
    const clear = photograph(300, 200).ensureAlpha(0.5).png();
    expect(await natureFor(await clear.toBuffer())).toBe('transparent');
    expect(await natureFor(await photograph(300, 200).ensureAlpha(1).png().toBuffer())).toBe(
      'photograph',
    );
  });
});

describe('encodeNeeded', () => {
  it('makes a photograph at its need in the smallest allowed format', async () => {
    const body = await photograph(1200, 800).jpeg({ quality: 95 }).toBuffer();
    const { format, body: result, steps } = await neededFor(body, 300, 200);
    const made = await sharp(result).metadata();
    const family = format === 'avif' ? 'heif' : format;
    expect(made).toMatchObject({ width: 300, height: 200, format: family });
    expect(steps.best).toBe(result.length);
    expect(steps.best).toBeLessThanOrEqual(steps.sameFormat);
    expect(steps.exponent).toBeGreaterThan(0.5);
    expect(made.exif).toBeUndefined();
  });

  it('keeps the format when the policy allows no other', async () => {
    const body = await photograph(600, 400).jpeg().toBuffer();
    const policy = { ...defaultPolicy, formats: [] };
    const { format, steps, attempts } = await neededFor(body, 300, 200, policy);
    expect(format).toBe('jpeg');
    expect(steps.best).toBe(steps.sameFormat);
    expect(new Set(attempts.map((attempt) => attempt.format))).toEqual(new Set(['jpeg']));
  });

  it('takes the lowest quality that was tried and is alike enough, and of the formats the smallest', async () => {
    const body = await scene(900, 600).jpeg({ quality: 95 }).toBuffer();
    const policy: Policy = { ...defaultPolicy, formats: ['webp', 'avif'], similarity: 0.98 };
    const { format, steps, attempts } = await neededFor(body, 450, 300, policy);
    const good = attempts.filter(({ similarity, isDraft }) => !isDraft && similarity >= 0.98);
    const smallest = Math.min(...good.map(({ bytes }) => bytes));
    expect(steps.best).toBe(smallest);
    expect(good.find(({ bytes }) => bytes === smallest)?.format).toBe(format);
    const made = (isDraft: boolean) =>
      attempts.filter((one) => one.format === 'avif' && one.isDraft === isDraft).length;
    expect(made(true)).toBe(1);
    expect(made(false)).toBeGreaterThan(0);
    expect(made(false)).toBeLessThanOrEqual(5);
  });

  it('tries WebP beside AVIF only where the file is small, or AVIF is not enough', async () => {
    const body = await scene(900, 600).jpeg({ quality: 95 }).toBuffer();
    const triedAt = async (width: number, height: number, policy = defaultPolicy) => {
      const { attempts, steps } = await neededFor(body, width, height, policy);
      return { formats: new Set(attempts.map(({ format }) => format)), bytes: steps.best };
    };
    const large = await triedAt(450, 300);
    expect(large.bytes).toBeGreaterThan(5_000);
    expect(large.formats).toEqual(new Set(['avif', 'jpeg']));
    const small = await triedAt(90, 60);
    expect(small.bytes).toBeLessThan(5_000);
    expect(small.formats).toEqual(new Set(['avif', 'webp', 'jpeg']));
    // Nobody can be as similar as that: all are tried.
    const strict = await triedAt(450, 300, { ...defaultPolicy, similarity: 0.9999 });
    expect(strict.formats).toEqual(new Set(['avif', 'webp', 'jpeg']));
  });

  it('keeps a format that packs the picture better than AVIF', async () => {
    const body = await packedPhotograph(600, 300);
    const { format, steps, attempts } = await neededFor(body, 600, 300);
    const enough = attempts.filter(
      (one) => !one.isDraft && one.format === 'avif' && one.similarity >= defaultPolicy.similarity,
    );
    expect(enough.length).toBeGreaterThan(0);
    expect(format).toBe('jpeg');
    expect(steps.best).toBeLessThan(Math.min(...enough.map(({ bytes }) => bytes)));
  });

  it('means nearly the same by a quality in AVIF and in JPEG', async () => {
    const apart = [];
    for (const picture of [scene(900, 600), photograph(900, 600), scene(1400, 900)]) {
      const body = await picture.jpeg({ quality: 95 }).toBuffer();
      const qualities = [];
      for (const formats of [['avif'], []] as const) {
        const policy = { ...defaultPolicy, formats: [...formats] };
        const { format, steps, attempts } = await neededFor(body, 450, 300, policy);
        expect(format).toBe(formats[0] ?? 'jpeg');
        qualities.push(attempts.find(({ bytes }) => bytes === steps.best)!.quality!);
      }
      apart.push(qualities[0]! - qualities[1]!);
    }
    expect(Math.abs(mean(apart))).toBeLessThan(6);
  });

  it('tells the bytes in its own format as a search in that format alone finds them', async () => {
    const pictures = [
      await scene(900, 600).jpeg({ quality: 95 }).toBuffer(),
      await scene(2100, 1400).jpeg({ quality: 95 }).toBuffer(),
    ];
    for (const body of pictures) {
      const { steps } = await neededFor(body, 900, 600);
      const alone = await neededFor(body, 900, 600, { ...defaultPolicy, formats: [] });
      // A search ends up to three steps of quality above the threshold.
      expect(steps.sameFormat / alone.steps.best).toBeGreaterThan(0.87);
      expect(steps.sameFormat / alone.steps.best).toBeLessThan(1.03);
    }
  });

  it('gives AVIF ten bits where there is detail, and eight where there is none', async () => {
    const policy: Policy = { ...defaultPolicy, formats: ['avif'] };
    const bitsOf = async (picture: Buffer) => {
      const { body, format } = await neededFor(picture, 600, 300, policy);
      expect(format).toBe('avif');
      return (await sharp(body).metadata()).bitsPerSample;
    };
    expect(await bitsOf(await scene(1200, 600).jpeg({ quality: 95 }).toBuffer())).toBe(10);
    expect(await bitsOf(await smooth(1200, 600))).toBe(8);
  });

  it('keeps white white', async () => {
    const paper = `<svg xmlns="http://www.w3.org/2000/svg" width="600" height="100"><rect width="600" height="100" fill="#fff"/></svg>`;
    const body = await photograph(600, 300)
      .composite([{ input: Buffer.from(paper), top: 0, left: 0 }])
      .jpeg({ quality: 98 })
      .toBuffer();
    const policy: Policy = { ...defaultPolicy, formats: ['avif'] };
    const { body: made } = await neededFor(body, 600, 300, policy);
    expect((await sharp(made).metadata()).bitsPerSample).toBe(10);
    const white = await sharp(made)
      .extract({ left: 10, top: 10, width: 580, height: 60 })
      .toColourspace('rgb16')
      .raw({ depth: 'ushort' })
      .toBuffer();
    // Of 1023, the most that ten bits can name, 1020 is what 255 becomes where bits are only added.
    const values = new Uint16Array(white.buffer, white.byteOffset, white.length / 2);
    expect(Math.min(...values.map((value) => value >> 6))).toBeGreaterThan(1020);
  });

  it('keeps the colours of small things, where plain averages of colour lose them', async () => {
    // Red dots on grey of the same brightness: luma alone sees nothing of them.
    const dots = Array.from({ length: 900 }, (_, at) => {
      const [x, y] = [(at % 30) * 10 + 4, Math.floor(at / 30) * 10 + 4];
      return `<rect x="${x}" y="${y}" width="2" height="2" fill="#e03030"/>`;
    });
    const drawn = Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="300"><rect width="300" height="300" fill="#6c6c6c"/>${dots.join('')}</svg>`,
    );
    const body = await sharp(drawn).blur(0.6).removeAlpha().png().toBuffer();
    const { body: result } = await neededFor(body, 300, 300);
    const redOf = async (picture: Buffer) => {
      const raw = await sharp(picture).removeAlpha().raw().toBuffer();
      const at = (5 * 300 + 5) * 3;
      return raw[at]! - raw[at + 1]!;
    };
    expect(await redOf(result)).toBeGreaterThan(0.85 * (await redOf(body)));
  });

  it('gives JPEG all its colours where a quarter of them is not enough', async () => {
    // Three pixels wide: pairs of pixels cannot share their colours.
    const stripes = Array.from(
      { length: 66 },
      (_, at) =>
        `<rect x="${at * 6}" width="3" height="400" fill="${at % 2 ? '#f02020' : '#2020f0'}"/>`,
    );
    const drawn = Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="400"><rect width="400" height="400" fill="#808080"/>${stripes.join('')}</svg>`,
    );
    const body = await sharp(drawn).jpeg({ quality: 98, chromaSubsampling: '4:4:4' }).toBuffer();
    const { body: result, format } = await neededFor(body, 400, 400, {
      ...defaultPolicy,
      formats: [],
    });
    expect(format).toBe('jpeg');
    expect((await sharp(result).metadata()).chromaSubsampling).toBe('4:4:4');
  });

  it('asks for a lower quality when it is to be less alike', async () => {
    const body = await scene(900, 600).jpeg({ quality: 95 }).toBuffer();
    const made = async (similarity: number) =>
      (await neededFor(body, 450, 300, { ...defaultPolicy, similarity })).steps.best;
    expect(await made(0.98)).toBeLessThan(await made(0.999));
  });

  it('counts what is no picture', async () => {
    const bare = await photograph(300, 200).jpeg().toBuffer();
    const told = await photograph(300, 200)
      .withExif({ IFD0: { Copyright: 'Brindle Bay Kite Festival' } })
      .jpeg()
      .toBuffer();
    const [without, within] = [await neededFor(bare, 100, 67), await neededFor(told, 100, 67)];
    expect(without.steps.metadata).toBe(0);
    expect(within.steps.metadata).toBeGreaterThan(40);
    expect(within.steps.metadata).toBeLessThanOrEqual(told.length - bare.length);
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
