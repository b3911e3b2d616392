import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { crc32, deflateSync, gzipSync } from 'node:zlib';
import { describe, expect } from 'vitest';
import { optimiseVector } from '../../dist/src/tasks/vector/optimise-vector.js';
import { inVectorProcess } from '../../dist/src/tasks/vector/vector-process.js';
import { readImageFacts } from '../../src/images/facts.js';
import { temporaryFolder } from '../support/folder.js';
import { serve } from '../support/server.js';
import { photograph } from '../support/pictures.js';
import { attack } from './attack.js';

const svg = (inside: string, attributes = 'width="40" height="40"') =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inside}</svg>`);

/** Each level draws the one below it ten times. */
const levels = (count: number, draw: (from: number) => string) =>
  Array.from({ length: count }, (_, at) => `<g id="l${at + 1}">${draw(at).repeat(10)}</g>`).join(
    '',
  );

const bombs: Readonly<Record<string, Buffer>> = {
  'use of use of use': svg(
    `<defs><rect id="l0" width="9" height="9"/>${levels(9, (at) => `<use href="#l${at}"/>`)}</defs><use href="#l9"/>`,
  ),
  'markers that draw markers': svg(
    `<defs>${Array.from({ length: 8 }, (_, at) => `<marker id="m${at}" markerWidth="9" markerHeight="9"><path d="M0 0${'L1 1'.repeat(50)}" marker-mid="url(#m${at + 1})"/></marker>`).join('')}</defs><path d="M0 0${'L9 9'.repeat(50)}" marker-mid="url(#m0)"/>`,
  ),
  'patterns in patterns': svg(
    `<defs>${Array.from({ length: 8 }, (_, at) => `<pattern id="p${at}" width="1" height="1" patternUnits="userSpaceOnUse"><rect width="9" height="9" fill="url(#p${at + 1})"/></pattern>`).join('')}</defs><rect width="4000" height="4000" fill="url(#p0)"/>`,
  ),
  'filters over an area without an end': svg(
    `<filter id="f" x="-9999" y="-9999" width="99999" height="99999">${'<feGaussianBlur stdDeviation="400"/><feTurbulence numOctaves="200"/>'.repeat(40)}</filter><rect width="9" height="9" filter="url(#f)"/>`,
    'width="20000" height="20000"',
  ),
  '900 kB of one path': svg(
    `<path d="M0 0${'c1 1 2 2 3 3'.repeat(74_000)}" stroke-dasharray="0.01" stroke="red"/>`,
  ),
  '200,000 elements': svg('<g/>'.repeat(200_000)),
};

/** What a bomb may take: the time of its turn, and what starting and ending the process adds. */
const longest = 20;

describe('images that attack', () => {
  for (const [name, body] of Object.entries(bombs)) {
    attack('bounded', `a vector: ${name}`, async () => {
      const began = performance.now();
      await Promise.all([optimiseVector(body), inVectorProcess('thumbnail', body)]);
      expect((performance.now() - began) / 1000).toBeLessThan(2 * longest);
      expect(process.memoryUsage.rss()).toBeLessThan(1.5e9);
      // The next one is worked on as if nothing had been.
      const sound = await optimiseVector(
        svg('<!-- bay --><path d="M 0.0000 0.0000 L 9.0000 9.0000"/>'),
      );
      expect(sound?.toString()).not.toContain('bay');
    });
  }

  attack('held', 'a vector that names files and hosts', async () => {
    const refers = (address: string) => `<image href="${address}" width="40" height="40"/>`;
    const picture = await photograph(40, 40).png().toBuffer();
    const folder = temporaryFolder();
    writeFileSync(join(folder, 'kite.png'), picture);
    const server = await serve({ '/kite.png': { type: 'image/png', body: picture } });
    const drawn = (text: string) => inVectorProcess('thumbnail', svg(text));
    const nothing = await drawn('');
    for (const address of [
      `file://${folder}/kite.png`,
      `${server.origin}/kite.png`,
      `${folder}/kite.png`,
    ])
      expect(await drawn(refers(address))).toEqual(nothing);
    expect(server.connections()).toBe(0);
    // What it brings itself is drawn.
    const own = `data:image/png;base64,${picture.toString('base64')}`;
    expect(await drawn(refers(own))).not.toEqual(nothing);
  });

  for (const [name, head] of Object.entries({
    'a document type and entities':
      '<?xml version="1.0"?>\n<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "http://www.w3.org/svg11.dtd" [ <!ENTITY ns "http://www.w3.org/2000/svg"> <!ENTITY a "x]>y"> ]>\n',
    '100 kB of comments': `<!--${' kites '.repeat(15_000)}-->`,
    'a byte order mark and instructions':
      '\uFEFF<?xml-stylesheet href="a.css"?>\n\n<!-- a --><!-- b -->',
  }))
    attack('held', `a vector behind ${name}`, async () => {
      const body = Buffer.from(
        `${head}<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>`,
      );
      const { mediaType, problem, intrinsic } = await readImageFacts(body, 'image/png');
      expect([mediaType, problem, intrinsic]).toEqual(['image/svg+xml', null, null]);
    });

  attack('told', 'an animated PNG', async () => {
    const still = await photograph(20, 10).png().toBuffer();
    const control = chunk('acTL', Buffer.from([0, 0, 0, 7, 0, 0, 0, 0]));
    // Behind the signature and the header.
    const body = Buffer.concat([still.subarray(0, 33), control, still.subarray(33)]);
    const { frames, problem } = await readImageFacts(body, '');
    expect(frames).toBe(7);
    expect(problem).toBe('it is an animated PNG of 7 frames, which cannot be decoded');
  });

  attack('told', 'a drawing that is compressed without a word', async () => {
    const { problem } = await readImageFacts(
      gzipSync(bombs['use of use of use']!),
      'image/svg+xml',
    );
    expect(problem).toBe('it is compressed, and not said to be');
  });

  attack('told', 'a picture of 60,000 by 60,000 in a kilobyte', async () => {
    const header = Buffer.alloc(13);
    header.writeUInt32BE(60_000, 0);
    header.writeUInt32BE(60_000, 4);
    header.set([8, 0, 0, 0, 0], 8);
    const body = Buffer.concat([
      Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
      chunk('IHDR', header),
      chunk('IDAT', deflateSync(Buffer.alloc(1_000))),
      chunk('IEND', Buffer.alloc(0)),
    ]);
    const { problem } = await readImageFacts(body, '');
    expect(problem).toMatch(/^it has 3600 megapixels/);
  });

  attack('held', '300 damaged images', async () => {
    const kinds = ['jpeg', 'png', 'webp', 'gif', 'avif'] as const;
    const whole = await Promise.all(
      kinds.map((kind) => photograph(30, 20).toFormat(kind).toBuffer()),
    );
    let seed = 7;
    const random = (below: number) => (seed = (seed * 48_271) % 2_147_483_647) % below;
    for (let at = 0; at < 300; at++) {
      const body = Buffer.from(whole[at % kinds.length]!);
      for (let change = 0; change <= at % 9; change++) body[random(body.length)] = random(256);
      const cut = at % 3 === 0 ? body.subarray(0, random(body.length)) : body;
      const facts = await readImageFacts(cut, 'image/x');
      expect(facts.bytes).toBe(cut.length);
      expect(facts.problem ?? '').not.toMatch(/undefined|NaN|\[object/);
    }
  });
});

function chunk(name: string, data: Buffer): Buffer {
  const length = Buffer.alloc(4);
  length.writeUInt32BE(data.length);
  const named = Buffer.concat([Buffer.from(name, 'latin1'), data]);
  const sum = Buffer.alloc(4);
  sum.writeUInt32BE(crc32(named));
  return Buffer.concat([length, named, sum]);
}
