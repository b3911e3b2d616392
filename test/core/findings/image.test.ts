import { describe, expect, it } from 'vitest';
import type { CurvePiece } from '../../../src/core/slots/slot-curve.js';
import { findingsOf } from '../../../src/core/findings/image/index.js';
import { findingKind } from '../../../src/core/findings/index.js';
import { findingWords } from '../../../src/output/words/findings.js';
import { pageFindingsOf } from '../../../src/core/findings/page/index.js';
import { noBytes } from '../../../src/core/load/request.js';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import { defaultViews } from '../../../src/core/visitors/view.js';
import type { ImageCase } from '../../../src/core/findings/image/image-case.js';

const placement = {
  row: 0,
  page: 'http://a.test/',
  view: 'phone',
  kind: 'img' as const,
  selector: 'img',
  url: 'http://a.test/kites.jpg',
  contentHash: 'x',
  slot: { width: 100, height: 50 },
  fit: 'fill' as const,
  drawn: null,
  naturalDensity: 1,
  aboveFold: true,
  aside: false,
  largest: false,
  shown: true,
  loading: 'eager' as const,
  fetched: 'at-once' as const,
  markup: null,
  curve: null as readonly CurvePiece[] | null,
  element: null,
  path: [],
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
  answers: [
    {
      url: 'http://a.test/kites.jpg',
      contentHash: 'x',
      problem: null,
      status: 200,
      redirects: [],
      protocol: 'http/1.1',
      headers: {},
      declaredType: 'image/jpg',
      transferBytes: 1200,
      thirdParty: false,
      initiator: 'parser',
    },
  ],
  answerTo: () => undefined,
  placements: [placement],
  policy: defaultPolicy,
  isInSight: ({ aboveFold }) => aboveFold,
  views: new Map(defaultViews.map((view) => [view.name, view])),
};

const ids = (image: Partial<ImageCase>) => findingsOf({ ...sound, ...image }).map(({ id }) => id);

const markup = {
  alt: 'Kites over the bay',
  srcset: null,
  sizes: null,
  fetchPriority: 'auto' as const,
  decoding: 'auto' as const,
  dimensions: true,
  declared: { width: null, height: null },
  framed: false,
};

describe('findingsOf', () => {
  it('has nothing to say of a sound image, nor of another spelling of its type', () => {
    expect(ids({})).toEqual([]);
  });

  it('tells a type that is not what the bytes are', () => {
    expect(ids({ answers: [{ ...sound.answers[0]!, declaredType: 'image/webp' }] })).toEqual([
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
    const twice = [...sound.answers, { ...sound.answers[0]!, url: 'http://a.test/b.jpg' }];
    expect(ids({ answers: twice })).toEqual(['several-addresses']);
    const file = { ...sound.file, problem: 'the file is empty' };
    expect(ids({ answers: twice, file })).toEqual(['unreadable']);
  });

  it('tells what is placed nowhere', () => {
    expect(ids({ placements: [] })).toEqual(['placed-nowhere']);
  });

  const marked = { ...placement, markup };
  const column = [
    { from: 320, to: 760, a: 1, b: -32 },
    { from: 761, to: 2560, a: 0, b: 728 },
  ];
  const srcset = '/a-200.jpg 200w, /a-400.jpg 400w';

  it.each([
    ['sound markup', {}, []],
    ['no alternative text', { markup: { ...markup, alt: null } }, ['no-alternative']],
    ['text that is given empty', { markup: { ...markup, alt: '' } }, []],
    ['an unknown box', { markup: { ...markup, dimensions: false } }, ['no-dimensions']],
    ['what is lazy in the first screen', { loading: 'lazy' as const }, ['lazy-first-screen']],
    ['what is far below and not lazy', { aboveFold: false }, ['eager-below']],
    ['what came with the scroll', { aboveFold: false, fetched: 'on-scroll' as const }, []],
    [
      'sizes that say the slot',
      {
        markup: { ...markup, srcset, sizes: '(max-width: 760px) calc(100vw - 32px), 728px' },
      },
      [],
    ],
    ['sizes beside x descriptors', { markup: { ...markup, srcset: '/a.jpg 2x' } }, []],
    ['what nobody sees', { shown: false, markup: { ...markup, alt: null, dimensions: false } }, []],
  ])('judges %s', (_what, change, expected) => {
    expect(ids({ placements: [{ ...marked, ...change, curve: column }] })).toEqual(expected);
  });

  it('says the sizes that would be right, to the pixel', () => {
    const findings = (sizes: string | null) =>
      findingsOf({
        ...sound,
        placements: [{ ...marked, curve: column, markup: { ...markup, srcset, sizes } }],
      });
    expect(findings('50vw').map(findingWords)).toEqual([
      'sizes says 384 px at a window width of 768 px, where the slot has 728 px: write sizes="(max-width: 760px) calc(100vw - 32px), 728px"',
    ]);
    expect(findings('50vw')).toMatchObject([
      { id: 'wrong-sizes', data: { declared: 384, slot: 728, viewport: 768, missing: false } },
    ]);
    expect(findingWords(findings(null)[0]!)).toMatch(
      /^sizes is missing, which means 2560 px at a window width of 2560 px, where the slot has 728 px/,
    );
    expect(findings('(orientation: portrait) 1px, 2px')).toEqual([]);
  });

  it.each([
    ['IMG_0042.jpg', true],
    ['DSC02238.JPG', true],
    ['20261123_101502.jpg', true],
    ['3f2504e04f8911d3.webp', true],
    ['image (3).png', true],
    ['photo.jpg', true],
    ['red-kite-over-the-bay.jpg', false],
    ['beach.jpg', false],
    ['img-of-a-kite.jpg', false],
    ['logo', false],
  ])('knows whether the name %s says nothing: %s', (name, says) => {
    const answers = [{ ...sound.answers[0]!, url: `http://a.test/x/${encodeURI(name)}` }];
    expect(ids({ answers }).includes('nameless')).toBe(says);
  });

  it('has a title for everything that it finds', () => {
    const found = [
      ids({ placements: [] }),
      ids({ placements: [{ ...marked, markup: { ...markup, alt: null, dimensions: false } }] }),
      ids({
        placements: [
          { ...marked, loading: 'lazy' as const },
          { ...marked, page: 'b', aboveFold: false },
        ],
      }),
      ids({ file: { ...sound.file, problem: 'the file is empty' } }),
    ].flat();
    for (const id of found) expect(findingKind(id)?.title).toBeTruthy();
  });

  const offered = (srcset: string, width = 358) => ({
    ...marked,
    slot: { width, height: 200 },
    markup: { ...markup, srcset, sizes: `${width}px` },
    curve: [{ from: 320, to: 2560, a: 0, b: width }],
  });

  it.each([
    ['what fits', '/a.jpg 358w, /b.jpg 720w', []],
    ['a gap', '/a.jpg 100w, /b.jpg 1920w', ['srcset-candidates']],
    ['nothing wide enough', '/a.jpg 200w, /b.jpg 320w', ['srcset-candidates']],
    ['near twins', '/a.jpg 716w, /b.jpg 720w', ['srcset-candidates']],
    [
      'too many',
      Array.from({ length: 13 }, (_, at) => `/a.jpg ${200 + at * 80}w`).join(),
      ['srcset-candidates'],
    ],
  ])('judges a srcset with %s', (_what, srcset, expected) => {
    const found = ids({ placements: [offered(srcset)] });
    expect(found.filter((id) => id === 'srcset-candidates')).toEqual(expected);
  });

  it('tells a width in srcset that is not that of the file', () => {
    const placements = [offered('/kites.jpg 800w')];
    expect(ids({ placements })).toContain('srcset-mislabelled');
    expect(ids({ placements: [offered('/kites.jpg 200w')] })).not.toContain('srcset-mislabelled');
  });

  it('tells what a wrong sizes made a view take', () => {
    const srcset = '/a.jpg 400w, /b.jpg 800w, /c.jpg 1600w';
    const placement = { ...offered(srcset, 130), markup: { ...markup, srcset, sizes: '100vw' } };
    const [finding] = findingsOf({ ...sound, placements: [placement] });
    expect(findingWords(finding!)).toContain('(phone takes 1600w and should take 400w)');
  });

  it.each([
    ['with priority', { markup: { ...markup, fetchPriority: 'high' as const } }, undefined],
    ['without', { markup }, /has no priority: add fetchpriority="high"/],
    [
      'in a style sheet',
      { kind: 'background' as const, markup: null },
      /found late, through a style sheet/,
    ],
  ])('judges the largest picture of the first screen %s', (_what, change, words) => {
    const placements = [{ ...marked, ...change, largest: true }];
    const found = findingsOf({ ...sound, placements }).find(({ id }) => id === 'late-largest');
    if (words) expect(found && findingWords(found)).toMatch(words);
    else expect(found).toBeUndefined();
  });

  it('says of a picture that a script asked for that it is found late', () => {
    const answerTo = () => ({ ...sound.answers[0]!, initiator: 'script' });
    const placements = [{ ...marked, largest: true }];
    const found = findingsOf({ ...sound, answerTo, placements });
    expect(found.map(findingWords).join()).toMatch(/found late, through a script/);
  });

  it.each([
    [120, 40_000, ['ceiling-area']],
    [120, 60_000, ['ceiling-area', 'ceiling-bytes']],
    [300, 90_000, ['ceiling-area']],
    [300, 150_000, ['ceiling-area', 'ceiling-bytes']],
    [390, 190_000, []],
    [390, 1_200_000, ['ceiling-area', 'ceiling-bytes']],
  ])('holds a picture %d wide with %d bytes against the ceilings', (width, bytes, expected) => {
    const slot = { width, height: width === 390 ? 844 : width / 2 };
    const found = ids({ file: { ...sound.file, bytes }, placements: [{ ...marked, slot }] });
    expect(found.filter((id) => id.startsWith('ceiling'))).toEqual(expected);
  });

  it('holds the longest side against what screens ask for', () => {
    const large = { ...sound.file, intrinsic: { width: 2000, height: 1000 } };
    expect(ids({ file: large })).toContain('ceiling-side');
    const wide = { ...placement, slot: { width: 390, height: 195 } };
    expect(ids({ file: large, placements: [wide] })).not.toContain('ceiling-side');
    const srcset = '/a-800.jpg 800w, /a.jpg 2000w';
    const chosen = { ...placement, markup: { ...markup, srcset } };
    expect(ids({ file: large, placements: [chosen] })).not.toContain('ceiling-side');
  });
});

describe('pageFindingsOf', () => {
  const page = {
    url: placement.page,
    finalUrl: placement.page,
    status: 200,
    depth: 0,
    visits: null,
    group: null,
    error: null,
    bytesByType: { ...noBytes(), image: 400_000, script: 90_000 },
  };
  const slides = (count: number, seen: number) =>
    Array.from({ length: count }, (_, at) => ({
      ...placement,
      selector: `#show > img:nth-of-type(${at + 1})`,
      aside: at >= seen,
    }));
  const found = (change: Partial<Parameters<typeof pageFindingsOf>[0]>) =>
    pageFindingsOf({ page, placements: [], policy: defaultPolicy, ...change }).map(({ id }) => id);

  it('tells a page that is heavier than the ceiling', () => {
    expect(found({})).toEqual([]);
    const heavy = { ...page, bytesByType: { ...page.bytesByType, html: 20_000 } };
    expect(found({ page: heavy })).toEqual(['heavy-page']);
  });

  it('tells a slider with more pictures than five, and no list of them', () => {
    expect(found({ placements: slides(6, 1) })).toEqual(['many-slides']);
    expect(found({ placements: slides(5, 1) })).toEqual([]);
    expect(found({ placements: slides(9, 9) })).toEqual([]);
  });
});
