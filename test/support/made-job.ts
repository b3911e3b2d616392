import type { MadeJob } from '../../src/core/refit/refit-job.js';

/** A picture that was refitted to 800 × 400 as WebP, with a narrower width and fallbacks as JPEG. */
export function madeJob(change: Partial<MadeJob> = {}): MadeJob {
  const contentHash = 'hash-0';
  const variant = (format: 'webp' | 'jpeg', width: number, path: string) => ({
    ...{ contentHash, format, path, bytes: width * 10, resultHash: path },
    size: { width, height: width / 2 },
    use: format === 'webp' ? ('width' as const) : ('fallback' as const),
  });
  return {
    file: {
      originals: ['http://a.test/0-0.jpg'],
      contentHash,
      path: '0-0.webp',
      resultHash: 'x',
      mediaType: 'image/webp',
      from: { width: 1_000, height: 500, bytes: 90_000, mediaType: 'image/jpeg' },
      to: { width: 800, height: 400, bytes: 8_000, format: 'webp' },
      pixelsFrom: null,
      savedBytes: 82_000,
    },
    nature: 'photograph',
    frames: 1,
    quality: 70,
    ...{ credit: null, master: null, isOpen: false, isBeyondNeed: false, isInPlace: false },
    folder: '',
    root: '/',
    variants: [
      variant('jpeg', 800, '0-0.jpg'),
      variant('webp', 400, '0-0-400.webp'),
      variant('jpeg', 400, '0-0-400.jpg'),
    ],
    ...change,
  };
}
