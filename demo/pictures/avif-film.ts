/** A still AVIF picture, as the codec writes it. */
interface Still {
  readonly file: Buffer;
  /** Where its one item is: the compressed picture. */
  readonly at: number;
  readonly length: number;
}

/** Ticks a second in which times are told. */
const timescale = 1_000;

/**
 * Joins still AVIF pictures to one that moves: the first stays as the picture of those who show no films, and all of
 * them become the samples of a track, each of which can be decoded without the others.
 *
 * Source: the AV1 Image File Format, sections 4 (image sequences) and 7 (brands), and ISO/IEC 14496-12,
 * whose section of a box is named with it below.
 *
 * @param stills files of one size, as the codec writes them
 * @param delay milliseconds that each of them is shown
 */
export function avifFilm(
  stills: readonly Buffer[],
  { width, height, delay }: Record<'width' | 'height' | 'delay', number>,
): Buffer {
  const pictures = stills.map(readStill);
  const first = pictures[0]!;
  const type = box('ftyp', brand('avis'), uint32(0), ...brands.map(brand));
  const shift = type.length - first.file.readUInt32BE(0);
  const start = Buffer.concat([type, moved(first, shift).subarray(first.file.readUInt32BE(0))]);
  const samples = pictures.map(({ file, at, length }) => file.subarray(at, at + length));
  const film = { width, height, delay, samples, codec: copyOfBox(first.file, 'av1C') };
  // How long it is does not depend on where its samples are.
  const mdatAt = start.length + movie(film, 0).length;
  return Buffer.concat([start, movie(film, mdatAt + boxHeader), box('mdat', ...samples)]);
}

const brands = ['avis', 'avif', 'msf1', 'mif1', 'miaf'];

interface Film {
  readonly width: number;
  readonly height: number;
  readonly delay: number;
  readonly samples: readonly Buffer[];
  readonly codec: Buffer;
}

/** The movie box (8.2.1) with one track of pictures. */
function movie({ width, height, delay, samples, codec }: Film, samplesAt: number): Buffer {
  const length = samples.length * delay;
  const times = [uint32(0, 0, timescale, length)];
  const sampleTable = box(
    'stbl',
    full('stsd', 0, uint32(1), sampleEntry(width, height, codec)),
    full('stts', 0, uint32(1, samples.length, delay)),
    full('stsc', 0, uint32(1, 1, samples.length, 1)),
    full('stsz', 0, uint32(0, samples.length, ...samples.map((sample) => sample.length))),
    full('stco', 0, uint32(1, samplesAt)),
  );
  // The one entry says that the samples are in this file (8.7.2).
  const here = full('dref', 0, uint32(1), full('url ', 1));
  const information = box('minf', full('vmhd', 1, zeros(8)), box('dinf', here), sampleTable);
  const handler = full('hdlr', 0, zeros(4), brand('pict'), zeros(12), Buffer.from('\0'));
  const language = 0x55c4;
  return box(
    'moov',
    full(
      'mvhd',
      0,
      ...times,
      uint32(0x10000),
      uint16(0x100),
      zeros(10),
      matrix,
      zeros(24),
      uint32(2),
    ),
    box(
      'trak',
      // Enabled, in the movie, in its preview.
      full(
        'tkhd',
        7,
        uint32(0, 0, 1, 0, length),
        zeros(16),
        matrix,
        uint32(width << 16, height << 16),
      ),
      box('mdia', full('mdhd', 0, ...times, uint16(language, 0)), handler, information),
    ),
  );
}

/** How the samples are coded: 12.1.3, and section 2.2 of the AV1 codec's file format. */
function sampleEntry(width: number, height: number, codec: Buffer): Buffer {
  const dotsPerInch = 72 << 16;
  return box(
    'av01',
    zeros(6),
    uint16(1),
    zeros(16),
    uint16(width, height),
    uint32(dotsPerInch, dotsPerInch, 0),
    uint16(1),
    zeros(32),
    uint16(24, 0xffff),
    codec,
    // Of the AV1 Image File Format's constraints (section 4): every sample is a picture by itself.
    full('ccst', 0, uint32(0x80000000)),
  );
}

/** The unit matrix of a presentation that is not turned (6.2.2). */
const matrix = uint32(0x10000, 0, 0, 0, 0x10000, 0, 0, 0, 0x40000000);

/** Reads where the one item of a still is: version 0 of the item location box (8.11.3). */
function readStill(file: Buffer): Still {
  const location = locationAt(file);
  if (file.readUInt32BE(location - boxHeader) !== locationLength)
    throw new Error('the codec writes where its pictures are in another way than before');
  const extent = location + extentAt;
  const at = file.readUInt32BE(location + baseAt) + file.readUInt32BE(extent);
  return { file, at, length: file.readUInt32BE(extent + 4) };
}

const boxHeader = 8;
/** A location box with one item of one extent, all of whose numbers have four bytes. */
const locationLength = 34;
/** Where it has what all extents of the item are counted from, and the first of them. */
const baseAt = locationLength - boxHeader - 14;
const extentAt = locationLength - boxHeader - 8;

/** Where the content of the item location box begins. */
function locationAt(file: Buffer): number {
  return file.indexOf('iloc') + 4;
}

/** The file with its item that much further on. */
function moved({ file }: Still, shift: number): Buffer {
  const copy = Buffer.from(file);
  const base = locationAt(file) + baseAt;
  copy.writeUInt32BE(file.readUInt32BE(base) + shift, base);
  return copy;
}

function copyOfBox(file: Buffer, name: string): Buffer {
  const at = file.indexOf(name) - 4;
  return file.subarray(at, at + file.readUInt32BE(at));
}

function box(name: string, ...content: readonly Buffer[]): Buffer {
  const inside = Buffer.concat(content);
  return Buffer.concat([uint32(inside.length + boxHeader), brand(name), inside]);
}

/** A box with flags, of version 0. */
function full(name: string, flags: number, ...content: readonly Buffer[]): Buffer {
  return box(name, uint32(flags), ...content);
}

function brand(name: string): Buffer {
  return Buffer.from(name, 'latin1');
}

function zeros(count: number): Buffer {
  return Buffer.alloc(count);
}

function uint32(...values: readonly number[]): Buffer {
  const buffer = Buffer.alloc(values.length * 4);
  values.forEach((value, index) => buffer.writeUInt32BE(value >>> 0, index * 4));
  return buffer;
}

function uint16(...values: readonly number[]): Buffer {
  const buffer = Buffer.alloc(values.length * 2);
  values.forEach((value, index) => buffer.writeUInt16BE(value, index * 2));
  return buffer;
}
