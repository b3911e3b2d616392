import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { framesOfAvif } from '../../src/images/avif-frames.js';
import { readImageFacts } from '../../src/images/facts.js';
import { contentHashOf } from '../../src/images/hash.js';
import { animation, drawing, photograph } from '../support/pictures.js';

describe('readImageFacts', () => {
  it.each(['jpeg', 'png', 'webp', 'gif', 'avif'] as const)(
    'reads a %s by its bytes',
    async (format) => {
      const body = await photograph(60, 40).toFormat(format).toBuffer();
      expect(await readImageFacts(body, 'image/wrong')).toEqual({
        contentHash: contentHashOf(body),
        mediaType: `image/${format}`,
        intrinsic: { width: 60, height: 40 },
        bytes: body.length,
        frames: 1,
        problem: null,
      });
    },
  );

  it.each([6, 8, 5, 7])('turns a picture with orientation %i upright', async (orientation) => {
    const body = await photograph(60, 40).withMetadata({ orientation }).jpeg().toBuffer();
    const { intrinsic } = await readImageFacts(body, '');
    expect(intrinsic).toEqual({ width: 40, height: 60 });
  });

  it.each([1, 2, 3, 4])('leaves orientation %i lying as it is', async (orientation) => {
    const body = await photograph(60, 40).withMetadata({ orientation }).jpeg().toBuffer();
    expect((await readImageFacts(body, '')).intrinsic).toEqual({ width: 60, height: 40 });
  });

  it('counts the frames of an animation and measures one of them', async () => {
    const facts = await readImageFacts(await animation(48, 5), 'image/gif');
    expect(facts).toMatchObject({ frames: 5, intrinsic: { width: 48, height: 48 } });
  });

  it('counts the frames of an AVIF by its track', async () => {
    const still = await photograph(60, 40).avif().toBuffer();
    expect(framesOfAvif(still)).toBe(1);
    const animated = Buffer.concat([still, track(7)]);
    expect(framesOfAvif(animated)).toBe(7);
    for (let length = 0; length < animated.length; length++)
      expect(framesOfAvif(animated.subarray(0, length))).toBe(1);
  });

  it.each([
    '<svg xmlns="http://www.w3.org/2000/svg"/>',
    '\uFEFF<?xml version="1.0"?>\n<!-- made by hand -->\n<svg viewBox="0 0 1 1"></svg>',
    '<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "x">\n<svg></svg>',
  ])('knows a vector, which has no pixels: %s', async (text) => {
    const facts = await readImageFacts(Buffer.from(text), 'text/plain');
    expect(facts).toMatchObject({ mediaType: 'image/svg+xml', intrinsic: null, problem: null });
  });

  it('tells HTML in disguise', async () => {
    const body = Buffer.from('<!doctype html><title>Not found</title>');
    const facts = await readImageFacts(body, 'image/jpeg');
    expect(facts).toMatchObject({ mediaType: 'text/html', problem: 'it is HTML, not an image' });
  });

  it('says what is wrong with nothing, and with noise', async () => {
    expect((await readImageFacts(Buffer.alloc(0), 'image/png')).problem).toBe('the file is empty');
    const noise = await readImageFacts(Buffer.from('no picture at all'), 'image/png');
    expect(noise).toMatchObject({ intrinsic: null, mediaType: 'image/png' });
    expect(noise.problem).toMatch(/^it cannot be read as an image/);
  });

  it('measures a picture of 65,000 × 65,000 pixels in a few bytes, and does not decode it', async () => {
    const before = process.memoryUsage().rss;
    const facts = await readImageFacts(hugePng(65_000), 'image/png');
    expect(facts.intrinsic).toEqual({ width: 65_000, height: 65_000 });
    expect(facts.problem).toMatch(/4225 megapixels/);
    expect(process.memoryUsage().rss - before).toBeLessThan(200e6);
  });

  it('keeps a drawing a picture', async () => {
    const body = await drawing(30, 20).png().toBuffer();
    expect(await readImageFacts(body, 'image/png')).toMatchObject({ problem: null });
  });
});

/** A PNG whose header promises `side` × `side` pixels and whose data keeps none of it. */
function hugePng(side: number): Buffer {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(side, 0);
  header.writeUInt32BE(side, 4);
  header.set([1, 0, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  const data = deflateSync(Buffer.alloc(100));
  return Buffer.concat([signature, chunk('IHDR', header), chunk('IDAT', data), chunk('IEND')]);
}

function chunk(type: string, data = Buffer.alloc(0)): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const length = Buffer.alloc(4);
  length.writeUInt32BE(data.length);
  const sum = Buffer.alloc(4);
  sum.writeUInt32BE(crc(body));
  return Buffer.concat([length, body, sum]);
}

function crc(bytes: Buffer): number {
  let value = 0xffffffff;
  for (const byte of bytes) {
    value ^= byte;
    for (let bit = 0; bit < 8; bit++) value = (value >>> 1) ^ (value & 1 ? 0xedb88320 : 0);
  }
  return (value ^ 0xffffffff) >>> 0;
}

// The helper's own proof: the codec accepts what it builds.
it('builds test pictures that the codec accepts', async () => {
  expect((await sharp(hugePng(100)).metadata()).width).toBe(100);
});

/** The boxes that tell of a track with so many samples. */
function track(samples: number): Buffer {
  const sizes = Buffer.alloc(12);
  sizes.writeUInt32BE(samples, 8);
  const nested = ['stbl', 'minf', 'mdia', 'trak'].reduce(
    (content, name) => box(name, Buffer.concat([box('free', Buffer.alloc(5)), content])),
    box('stsz', sizes),
  );
  return box('moov', nested);
}

function box(name: string, content: Buffer): Buffer {
  const head = Buffer.alloc(8);
  head.writeUInt32BE(8 + content.length);
  head.write(name, 4, 'latin1');
  return Buffer.concat([head, content]);
}
