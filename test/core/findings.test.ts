import { describe, expect, it } from 'vitest';
import { findingsOf } from '../../src/core/findings/index.js';
import type { ImageCase } from '../../src/core/findings/finding.js';

const placement = {
  page: 'http://a.test/',
  view: 'phone',
  kind: 'img' as const,
  selector: 'img',
  url: 'http://a.test/a.jpg',
  contentHash: 'x',
  slot: { width: 100, height: 50 },
  fit: 'fill' as const,
  drawn: null,
  naturalDensity: 1,
  aboveFold: true,
  shown: true,
  loading: 'eager' as const,
  fetched: 'at-once' as const,
  markup: null,
};

const sound: ImageCase = {
  file: {
    contentHash: 'x',
    mediaType: 'image/jpeg',
    intrinsic: { width: 200, height: 100 },
    bytes: 1000,
    frames: 1,
    problem: null,
  },
  responses: [
    {
      page: 'http://a.test/',
      view: 'phone',
      url: 'http://a.test/a.jpg',
      contentHash: 'x',
      problem: null,
      status: 200,
      redirects: [],
      protocol: 'http/1.1',
      headers: {},
      declaredType: 'image/jpg',
      transferBytes: 1200,
      thirdParty: false,
    },
  ],
  placements: [placement],
};

const ids = (image: Partial<ImageCase>) => findingsOf({ ...sound, ...image }).map(({ id }) => id);

describe('findingsOf', () => {
  it('has nothing to say of a sound image, nor of another spelling of its type', () => {
    expect(ids({})).toEqual([]);
  });

  it('tells a type that is not what the bytes are', () => {
    expect(ids({ responses: [{ ...sound.responses[0]!, declaredType: 'image/webp' }] })).toEqual([
      'mislabelled',
    ]);
  });

  it('tells a blurred picture, but not one that nobody sees or that is hardly enlarged', () => {
    const large = { ...placement, slot: { width: 400, height: 200 } };
    expect(ids({ placements: [large] })).toEqual(['too-few-pixels']);
    expect(ids({ placements: [{ ...large, shown: false }] })).toEqual([]);
    expect(ids({ placements: [{ ...placement, slot: { width: 210, height: 105 } }] })).toEqual([]);
  });

  it('tells several addresses of sound content only', () => {
    const twice = [...sound.responses, { ...sound.responses[0]!, url: 'http://a.test/b.jpg' }];
    expect(ids({ responses: twice })).toEqual(['several-addresses']);
    const file = { ...sound.file, problem: 'the file is empty' };
    expect(ids({ responses: twice, file })).toEqual(['unreadable']);
  });

  it('tells what is placed nowhere', () => {
    expect(ids({ placements: [] })).toEqual(['placed-nowhere']);
  });
});
