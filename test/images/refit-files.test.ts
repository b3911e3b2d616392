import ExifReader from 'exifreader';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { noCredit } from '../../src/core/refit/credit.js';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import { readCredit } from '../../src/images/credit.js';
import { readImageFacts } from '../../src/images/facts.js';
import { encodeNeeded } from '../../src/images/needed.js';
import { openVariants } from '../../src/images/variants.js';
import { animation, drawing, photograph, scene } from '../support/pictures.js';

const need = { width: 120, height: 80 };

/** What the policy asks for of a picture, really encoded. */
async function needed(body: Buffer, more: Partial<typeof defaultPolicy> = {}) {
  const file = await readImageFacts(body, 'image/any');
  return encodeNeeded(body, file, need, { ...defaultPolicy, ...more });
}

/** The first pixel of a file, as a browser would show it. */
async function firstPixel(body: Buffer): Promise<number[]> {
  const pixels = await sharp(body).removeAlpha().raw().toBuffer();
  return [...pixels.subarray(0, 3)];
}

describe('metadata of refitted files', () => {
  const credited = () =>
    scene(300, 200)
      .withExif({ IFD0: { Artist: 'A. Gull', Copyright: 'Brindle Bay', Software: 'Camera 1' } })
      .withXmp(
        '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title><rdf:Alt><rdf:li xml:lang="x-default">Kites &amp; sand</rdf:li></rdf:Alt></dc:title><dc:subject><rdf:Bag><rdf:li>kite</rdf:li><rdf:li>bay</rdf:li></rdf:Bag></dc:subject></rdf:Description></rdf:RDF></x:xmpmeta>',
      )
      .jpeg()
      .toBuffer();

  it('are gone, are the credit alone, or are all there, as the policy says', async () => {
    const body = await credited();
    const [none, credit, all] = await Promise.all(
      (['drop', 'credit', 'keep'] as const).map((metadata) => needed(body, { metadata })),
    );
    const facts = async (file: Buffer) => {
      const { exif, xmp, icc } = await sharp(file).metadata();
      return [exif, xmp, icc].map((block) => block !== undefined);
    };
    expect(await facts(none!.body)).toEqual([false, false, false]);
    expect(await facts(credit!.body)).toEqual([false, true, false]);
    expect(await facts(all!.body)).toEqual([true, true, false]);
    expect(readCredit(credit!.body)).toEqual({
      ...{ title: 'Kites & sand', description: null, creator: 'A. Gull' },
      ...{ copyright: 'Brindle Bay', keywords: ['kite', 'bay'] },
    });
    expect(ExifReader.load(all!.body, { expanded: true }).exif?.['Software']?.description).toBe(
      'Camera 1',
    );
    for (const one of [none!, credit!, all!]) expect(one.steps.best).toBe(one.body.length);
    // What is to go along is no waste.
    expect(all!.steps.metadata).toBeLessThan(none!.steps.metadata);
    expect(credit!.steps.sameFormat - none!.steps.sameFormat).toBe(
      credit!.body.length - none!.body.length,
    );
  });

  it('hold what somebody has filled in, over what stood there', async () => {
    const body = await credited();
    const said = { title: 'Noon', description: 'Kites at noon', keywords: ['sky'] };
    const given = { ...noCredit, ...said };
    const make = async (metadata: 'drop' | 'credit' | 'keep') => {
      const source = { body, frames: 1, nature: 'photograph' as const, size: need, credit: given };
      const open = await openVariants(source, { ...defaultPolicy, metadata });
      return (await open({ size: need, format: 'jpeg', quality: 60 })).made.body;
    };
    expect(readCredit(await make('drop'))).toEqual(given);
    expect(readCredit(await make('credit'))).toMatchObject({ ...said, creator: 'A. Gull' });
    const kept = await make('keep');
    expect(readCredit(kept)).toMatchObject({ ...said, creator: 'A. Gull' });
    expect(ExifReader.load(kept, { expanded: true }).exif?.['Software']?.description).toBe(
      'Camera 1',
    );
  });

  it('say nothing where there are none, or where they cannot be read', async () => {
    expect(readCredit(await scene(40, 30).png().toBuffer())).toEqual(noCredit);
    expect(readCredit(Buffer.from('no picture'))).toEqual(noCredit);
  });
});

describe('colours of refitted files', () => {
  const flat = (colour: { r: number; g: number; b: number }) =>
    sharp({ create: { width: 240, height: 160, channels: 3, background: colour } })
      .withIccProfile('p3')
      .jpeg({ quality: 95 })
      .toBuffer();

  it('are sRGB without a profile where sRGB has them all', async () => {
    const body = await flat({ r: 120, g: 110, b: 100 });
    const { body: made } = await needed(body);
    expect((await sharp(made).metadata()).icc).toBeUndefined();
    const [shown, was] = [await firstPixel(made), await firstPixel(body)];
    shown.forEach((value, at) => expect(Math.abs(value - was[at]!)).toBeLessThan(6));
  });

  it('keep their profile where sRGB does not have them', async () => {
    // Red as far out as the profile goes: more than sRGB can name.
    const wide = await sharp(Buffer.alloc(240 * 160 * 3, Buffer.from([255, 0, 0])), {
      raw: { width: 240, height: 160, channels: 3 },
    })
      .png()
      .toBuffer();
    const profile = (await sharp(await flat({ r: 1, g: 1, b: 1 })).metadata()).icc!;
    const body = await withProfile(wide, profile);
    const { body: made } = await needed(body);
    expect((await sharp(made).metadata()).icc?.length).toBe(profile.length);
    const pixels = await sharp(made, { ignoreIcc: true }).raw().toBuffer();
    expect(pixels[0]).toBeGreaterThan(248);
    expect(pixels[1]).toBeLessThan(8);
  });

  it('are turned into sRGB where they are for print', async () => {
    const body = await photograph(240, 160).toColourspace('cmyk').jpeg().toBuffer();
    const { body: made, nature } = await needed(body);
    const { space, channels, icc } = await sharp(made).metadata();
    expect([nature, channels, icc]).toEqual(['photograph', 3, undefined]);
    // With eight bits or with ten.
    expect(['srgb', 'rgb16']).toContain(space);
  });
});

/** Puts a profile into a PNG file without touching its pixels (PNG, third edition, section 11.3.2.3). */
async function withProfile(png: Buffer, profile: Buffer): Promise<Buffer> {
  const { deflateSync, crc32 } = await import('node:zlib');
  const data = Buffer.concat([Buffer.from('wide\0\0', 'latin1'), deflateSync(profile)]);
  const named = Buffer.concat([Buffer.from('iCCP'), data]);
  const length = Buffer.alloc(4);
  length.writeUInt32BE(data.length);
  const sum = Buffer.alloc(4);
  sum.writeUInt32BE(crc32(named));
  const afterHeader = 8 + 25;
  return Buffer.concat([
    png.subarray(0, afterHeader),
    length,
    named,
    sum,
    png.subarray(afterHeader),
  ]);
}

describe('refitted drawings', () => {
  it('are written with a true palette where nothing is lost that an eye would see', async () => {
    const body = await drawing(600, 400).png({ palette: false }).toBuffer();
    const { body: made, format, nature } = await needed(body, { formats: ['png'] });
    expect([format, nature]).toEqual(['png', 'drawing']);
    expect(await sharp(made).metadata()).toMatchObject({ isPalette: true });
    const ideal = await sharp(body)
      .resize(need.width, need.height, { fit: 'fill', kernel: 'lanczos3' })
      .removeAlpha()
      .raw()
      .toBuffer();
    const pixels = await sharp(made).removeAlpha().raw().toBuffer();
    let most = 0;
    pixels.forEach((value, at) => (most = Math.max(most, Math.abs(value - ideal[at]!))));
    expect(most).toBeLessThanOrEqual(4);
  });

  it('keep every pixel where a palette would show', async () => {
    // 60 000 colours in as many pixels: no 256 of them will do.
    const pixels = Buffer.alloc(300 * 200 * 3);
    for (let at = 0; at < 60_000; at++)
      pixels.set([at % 251, Math.floor(at / 251), (at * 7) % 256], at * 3);
    const body = await sharp(pixels, { raw: { width: 300, height: 200, channels: 3 } })
      .png()
      .toBuffer();
    const open = await openVariants(
      { body, frames: 1, nature: 'drawing', size: { width: 300, height: 200 }, credit: null },
      defaultPolicy,
    );
    const { made } = await open({
      size: { width: 300, height: 200 },
      format: 'png',
      quality: null,
    });
    expect((await sharp(made.body).metadata()).isPalette).toBe(false);
    expect((await sharp(made.body).removeAlpha().raw().toBuffer()).equals(pixels)).toBe(true);
  });

  it('let through what lies behind them', async () => {
    const body = await sharp(
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><circle cx="150" cy="100" r="80" fill="#059" fill-opacity=".5"/></svg>',
      ),
    )
      .png()
      .toBuffer();
    const { body: made } = await needed(body);
    const pixels = await sharp(made).ensureAlpha().raw().toBuffer();
    const middle = (40 * 120 + 60) * 4;
    expect(pixels[3]).toBe(0);
    expect(Math.abs(pixels[middle + 3]! - 128)).toBeLessThan(5);
  });
});

describe('other refitted files', () => {
  it('keep an animation moving, in its own format, too', async () => {
    const body = await animation(200, 5);
    const open = await openVariants(
      { body, frames: 5, nature: 'animation', size: { width: 100, height: 100 }, credit: null },
      defaultPolicy,
    );
    const { made } = await open({ size: { width: 60, height: 60 }, format: 'gif', quality: null });
    const { pages, width, format } = await sharp(made.body, { animated: true }).metadata();
    expect([pages, width, format]).toEqual([5, 60, 'gif']);
  });

  it('are JPEG that comes in from coarse to fine', async () => {
    const { body } = await needed(await photograph(600, 400).jpeg().toBuffer(), {
      formats: ['jpeg'],
    });
    expect((await sharp(body).metadata()).isProgressive).toBe(true);
  });

  it('are turned upright', async () => {
    const lying = await scene(200, 300).withMetadata({ orientation: 6 }).jpeg().toBuffer();
    const file = await readImageFacts(lying, 'image/jpeg');
    expect(file.intrinsic).toEqual({ width: 300, height: 200 });
    const { width, height, orientation } = await sharp((await needed(lying)).body).metadata();
    expect([width, height, orientation]).toEqual([120, 80, undefined]);
  });
});
