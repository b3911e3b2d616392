/**
 * How many pictures an AVIF file shows one after the other; 1 for a still one. The codec
 * decodes only the first of them.
 *
 * Source: ISO/IEC 14496-12, 8.7.3 (sample sizes of a track), and the AV1 Image File Format for image
 * sequences, whose frames are the samples of a track.
 */
export function framesOfAvif(body: Buffer): number {
  const counts = tablesOf(body, 0, body.length, trackToSizes).map((at) =>
    at + sampleCountEnd <= body.length ? body.readUInt32BE(at + sampleCountEnd - 4) : 1,
  );
  return Math.max(1, ...counts);
}

/**
 * The same file under the brand of a still picture, which is all that the codec asks before it decodes the first one;
 * the file itself where it has that brand already.
 */
export function asStillAvif(body: Buffer): Buffer {
  if (body.toString('latin1', 4, 12) !== 'ftypavis') return body;
  const copy = Buffer.from(body);
  copy.write('avif', 8, 'latin1');
  return copy;
}

/** Boxes that lead from the file to the table of a track's sample sizes. */
const trackToSizes = ['moov', 'trak', 'mdia', 'minf', 'stbl', 'stsz'] as const;
/** Version and flags, the common size, the count: four bytes each. */
const sampleCountEnd = 12;
/** The most boxes side by side that are read of a file. */
const maxBoxes = 1_000;

/** The start of the content of each box at the end of the path. */
function tablesOf(body: Buffer, from: number, to: number, path: readonly string[]): number[] {
  const [name, ...inside] = path;
  const found: number[] = [];
  for (let at = from, boxes = 0; at + 8 <= to && boxes < maxBoxes; boxes++) {
    const long = body.readUInt32BE(at) === 1 && at + 16 <= to;
    const told = long ? Number(body.readBigUInt64BE(at + 8)) : body.readUInt32BE(at);
    const header = long ? 16 : 8;
    // A size of nothing means that the box reaches to the end.
    const end = Math.min(to, told === 0 ? to : at + told);
    if (end < at + header) break;
    if (body.toString('latin1', at + 4, at + 8) === name)
      found.push(
        ...(inside.length === 0 ? [at + header] : tablesOf(body, at + header, end, inside)),
      );
    at = end;
  }
  return found;
}
