/** The part of a colour profile (ICC.1:2022) that defines its gamut: primaries and curves. */
export interface ColourProfile {
  /** Linear red, green and blue of the profile to linear red, green and blue of sRGB, row by row. */
  readonly toSrgb: readonly (readonly number[])[];
  /** Linear light, 0 to 1, of each of the 256 values of red, green and blue. */
  readonly curves: readonly Float64Array[];
}

/**
 * CIE XYZ relative to D50, the connection space of profiles, to linear sRGB (IEC 61966-2-1, its white adapted by the
 * Bradford method).
 */
const xyzToSrgb = [
  [3.1338561, -1.6168667, -0.4906146],
  [-0.9787684, 1.9161415, 0.033454],
  [0.0719453, -0.2289914, 1.4052427],
] as const;

const headLength = 128;
const entryLength = 12;
const maxTags = 100;

/** @returns `undefined` for profiles that are no matrix of red, green and blue, and for what is broken. */
export function readColourProfile(icc: Uint8Array): ColourProfile | undefined {
  const bytes = new DataView(icc.buffer, icc.byteOffset, icc.byteLength);
  const word = (at: number) => String.fromCharCode(...icc.subarray(at, at + 4));
  try {
    if (word(16) !== 'RGB ') return undefined;
    const tags = new Map<string, number>();
    const count = Math.min(maxTags, bytes.getUint32(headLength));
    for (let index = 0; index < count; index++) {
      const entry = headLength + 4 + index * entryLength;
      tags.set(word(entry), bytes.getUint32(entry + 4));
    }
    const columns = ['rXYZ', 'gXYZ', 'bXYZ'].map((name) => {
      const at = tags.get(name)!;
      return [8, 12, 16].map((offset) => fixed(bytes, at + offset));
    });
    const curves = ['rTRC', 'gTRC', 'bTRC'].map((name) => curveOf(bytes, tags.get(name)!, word));
    const toSrgb = xyzToSrgb.map((row) =>
      columns.map((column) => row.reduce((sum, part, at) => sum + part * column[at]!, 0)),
    );
    return { toSrgb, curves };
  } catch {
    return undefined;
  }
}

/** A number with 16 bits before and after its point. */
function fixed(bytes: DataView, at: number): number {
  return bytes.getInt32(at) / 65_536;
}

/** A curve as a table (`curv`) or as one of the functions of `para`, for 256 values. */
function curveOf(bytes: DataView, at: number, word: (at: number) => string): Float64Array {
  const kind = word(at);
  if (kind === 'curv') {
    const count = bytes.getUint32(at + 8);
    if (count === 0) return sampled((x) => x);
    if (count === 1) return power(bytes.getUint16(at + 12) / 256);
    const entry = (index: number) => bytes.getUint16(at + 12 + 2 * index) / 65_535;
    return sampled((x) => entry(Math.round(x * (count - 1))));
  }
  if (kind !== 'para') throw new RangeError(kind);
  const type = bytes.getUint16(at + 8);
  const [g, a, b, c, d, e, f] = [0, 1, 2, 3, 4, 5, 6].map((index) =>
    index < [1, 3, 4, 5, 7][type]! ? fixed(bytes, at + 12 + 4 * index) : 0,
  ) as [number, number, number, number, number, number, number];
  const bent = (x: number) => Math.max(0, a * x + b) ** g;
  if (type === 0) return power(g);
  if (type === 1) return sampled((x) => (x >= -b / a ? bent(x) : 0));
  if (type === 2) return sampled((x) => (x >= -b / a ? bent(x) + c : c));
  return sampled((x) => (x >= d ? bent(x) + e : c * x + f));
}

function power(gamma: number): Float64Array {
  return sampled((x) => x ** gamma);
}

function sampled(curve: (x: number) => number): Float64Array {
  return Float64Array.from({ length: 256 }, (_, value) => curve(value / 255));
}

/** How far a colour may lie outside the gamut and still look the same, in linear light. */
const unseen = 0.02;

/**
 * The part of some pixels whose colours sRGB does not have, 0 to 1: what is lost of them when they are converted.
 *
 * @param pixels in the profile's own values, a byte each for red, green and blue
 */
export function shareOutsideSrgb(
  pixels: Uint8Array,
  channels: number,
  { toSrgb, curves }: ColourProfile,
): number {
  let outside = 0;
  for (let at = 0; at < pixels.length; at += channels) {
    const light = curves.map((curve, channel) => curve[pixels[at + channel]!]!);
    const seen = toSrgb.map((row) => row.reduce((sum, part, from) => sum + part * light[from]!, 0));
    if (seen.some((value) => value < -unseen || value > 1 + unseen)) outside++;
  }
  return pixels.length === 0 ? 0 : outside / (pixels.length / channels);
}
