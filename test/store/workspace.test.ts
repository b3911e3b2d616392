import { describe, expect, it } from 'vitest';
import { noBytes } from '../../src/core/load/request.js';
import { defaultViews } from '../../src/core/visitors/view.js';
import { Workspace } from '../../src/store/workspace.js';
import { freshPlace } from '../support/place.js';
import { plainFile as file } from '../support/image-file.js';

const plan = { given: ['http://a.test/'], hosts: ['http://a.test/'], scope: { pages: 5 } };
const now = '2026-01-01T00:00:00.000Z';

const record = {
  page: {
    url: 'http://a.test/',
    finalUrl: 'http://a.test/',
    status: 200,
    depth: 0,
    visits: 1200,
    group: null,
    error: null,
    bytesByType: { ...noBytes(), image: 1100 },
  },
  visits: [
    {
      view: 'phone',
      responses: [
        {
          url: 'http://a.test/x.png',
          contentHash: file.contentHash,
          problem: null,
          status: 200,
          redirects: ['http://a.test/old.png'],
          declaredType: 'image/png',
          protocol: 'http/1.1',
          headers: { 'cache-control': 'max-age=60' },
          transferBytes: 1100,
          thirdParty: false,
          initiator: 'parser',
        },
        {
          url: 'http://a.test/gone.png',
          contentHash: null,
          problem: 'returned 404',
          status: 404,
          redirects: [],
          declaredType: 'text/html',
          protocol: 'http/1.1',
          headers: {},
          transferBytes: 90,
          thirdParty: false,
          initiator: 'parser',
        },
      ],
      placements: [
        {
          kind: 'img' as const,
          selector: 'body > img',
          url: 'http://a.test/x.png',
          contentHash: file.contentHash,
          slot: { width: 20.5, height: 15.25 },
          fit: 'cover' as const,
          aboveFold: true,
          aside: false,
          largest: true,
          shown: true,
          loading: 'lazy' as const,
          drawn: { width: 12, height: null },
          naturalDensity: 2,
          fetched: 'on-scroll' as const,
          markup: {
            alt: '',
            srcset: null,
            sizes: null,
            fetchPriority: 'auto' as const,
            decoding: 'async' as const,
            dimensions: true,
            declared: { width: 30, height: 20 },
            framed: true,
          },
          element: {
            attributes: [
              ['class', 'wide'],
              ['src', 'kite.jpg'],
            ] as const,
            picture: { attributes: [], sources: [[['media', 'print']]] } as const,
          },
          path: [
            ['html', '', ''],
            ['body', 'top', 'kites wide'],
            ['img', '', 'wide'],
          ] as const,
        },
        {
          kind: 'background' as const,
          selector: 'body::before',
          url: 'http://a.test/gone.png',
          contentHash: null,
          slot: { width: 320, height: 40 },
          fit: 'none' as const,
          aboveFold: false,
          aside: false,
          largest: true,
          shown: false,
          loading: 'eager' as const,
          drawn: null,
          naturalDensity: 1,
          fetched: null,
          markup: null,
          element: null,
          path: [],
        },
      ],
      uses: [{ url: 'http://a.test/whole.jpg', kind: 'link' as const }],
      ...{ resources: [], load: null, screen: null },
    },
  ],
  shape: {
    ...{ full: [3, 4_000_000_000], frame: [3], marks: ['journal'] },
    ...{ skeleton: [3], trail: ['Home'], heading: 'Kites' },
  },
  document: '0123456789abcdef',
  curves: [
    {
      kind: 'img' as const,
      selector: 'body > img',
      pieces: [{ from: 320, to: 2560, a: 0.5, b: -8 }],
    },
  ],
};

function open(place = freshPlace()): Workspace {
  return Workspace.open(place);
}

describe('Workspace', () => {
  it('gives a survey back as it was kept, after it was closed', () => {
    const place = freshPlace();
    const first = open(place);
    const head = first.surveys.begin('before', now, ['http://a.test/'], defaultViews, plan);
    first.images.add(file);
    first.pages.add(head.id, record);
    first.pages.addFound(head.id, {
      due: [],
      skipped: [{ url: 'http://a.test/b.pdf', reason: 'a .pdf file' }],
    });
    first.surveys.finish(head.id, now);
    first.close();
    const second = open(place);
    const facts = second.pages.read(second.surveys.find('before'));
    const page = 'http://a.test/';
    const { view, placements, responses } = record.visits[0]!;
    expect(facts.head).toEqual({ ...head, finishedAt: now });
    expect(facts.pages).toEqual([record.page]);
    expect(facts.files).toEqual([file]);
    expect(facts.visits).toEqual([{ page, view, measured: true }]);
    expect([...facts.responses]).toEqual(responses.map((one) => ({ ...one, page, view })));
    expect([...facts.placements]).toEqual(
      placements.map(({ element: _, path: __, ...one }) => ({ ...one, page, view })),
    );
    expect([0, 1].map((row) => facts.placements.elementAt(row))).toEqual(
      placements.map(({ element }) => element),
    );
    expect([0, 1].map((row) => facts.placements.pathAt(row))).toEqual(
      placements.map(({ path }) => path),
    );
    expect(facts.uses).toEqual([{ url: 'http://a.test/whole.jpg', kind: 'link', page }]);
    expect(facts.placements.curveAt(0)).toEqual(record.curves[0]!.pieces);
    expect(second.pages.sketches(head.id)).toEqual([{ url: page, sketch: record.shape }]);
    expect(second.pages.skipped(head.id)).toEqual([
      { url: 'http://a.test/b.pdf', reason: 'a .pdf file' },
    ]);
    second.close();
  });

  it('gives a sealed survey back as one that is not, and takes the seal off what grows', () => {
    const workspace = open();
    const head = workspace.surveys.begin('sealed', now, ['http://a.test/'], defaultViews, plan);
    const told = () => {
      const { placements, responses, ...facts } = workspace.pages.read(head);
      const curves = [...placements].map((_, row) => placements.curveAt(row));
      return { ...facts, placements: [...placements], responses: [...responses], curves };
    };
    workspace.images.add(file);
    workspace.pages.add(head.id, record);
    const before = told();
    expect(before.placements).toHaveLength(2);
    expect(before.curves).toEqual([record.curves[0]!.pieces, null]);
    workspace.pages.seal(head.id);
    expect(told()).toEqual(before);
    const second = { ...record.page, url: 'http://a.test/second' };
    workspace.pages.add(head.id, { ...record, page: second });
    const after = told();
    expect(after.placements).toHaveLength(4);
    workspace.pages.seal(head.id);
    expect(workspace.pages.parts(head)).toBe(1);
    expect(told()).toEqual(after);
    // In two parts, of a page each.
    workspace.pages.seal(head.id, 1);
    expect(workspace.pages.parts(head)).toBe(2);
    expect(told()).toEqual(after);
    const files = workspace.pages.files(head.id);
    const parts = [0, 1].map((part) => workspace.pages.part(head.id, part, files));
    expect(parts.map(({ visits }) => visits.length)).toEqual([1, 1]);
    expect(parts.flatMap(({ placements }) => [...placements])).toEqual(after.placements);
    workspace.close();
  });

  it('keeps texts of any letters, and what is no letter as a sign for that', () => {
    const workspace = open();
    const { id } = workspace.surveys.begin('odd', now, [], defaultViews, plan);
    workspace.images.add(file);
    const [visit] = record.visits;
    const [placement] = visit!.placements;
    const alt = 'half a \uD83E kite, nothing\0, a whole \u{1FA81} and \\u0000';
    const odd = { ...placement!, markup: { ...placement!.markup!, alt } };
    workspace.pages.add(id, { ...record, visits: [{ ...visit!, placements: [odd] }] });
    const { placements } = workspace.pages.read(workspace.surveys.get(id));
    // One of the databases keeps U+0000, the other has no place for it.
    const kept = [...placements][0]!.markup!.alt!.replace('\0', '\uFFFD');
    expect(kept).toBe('half a \uFFFD kite, nothing\uFFFD, a whole \u{1FA81} and \\u0000');
    workspace.close();
  });

  it('keeps a page whole or not at all', () => {
    const workspace = open();
    const head = workspace.surveys.begin(undefined, now, [], defaultViews, plan);
    const [visit] = record.visits;
    const unknownFile = { ...visit!.responses[0]!, contentHash: 'b'.repeat(64) };
    const found = { due: [{ url: 'http://a.test/b', depth: 1, visits: null }], skipped: [] };
    expect(() =>
      workspace.pages.add(
        head.id,
        { ...record, visits: [{ ...visit!, responses: [unknownFile] }] },
        found,
      ),
    ).toThrow(/foreign key/i);
    expect(workspace.pages.list(head.id)).toEqual([]);
    expect(workspace.pages.leftover(head.id).found).toEqual([]);
    workspace.close();
  });

  it('knows what a survey that was broken off had still to do', () => {
    const place = freshPlace();
    const first = open(place);
    const { id } = first.surveys.begin('cut', now, [], defaultViews, plan);
    first.images.add(file);
    const due = ['http://a.test/', 'http://a.test/b', 'http://a.test/c'].map((url, depth) => ({
      url,
      depth,
      visits: depth === 0 ? 1200 : null,
    }));
    first.pages.add(id, record, { due, skipped: [] });
    first.pages.addFound(id, {
      due: [],
      skipped: [{ url: 'http://a.test/b', reason: 'excluded' }],
    });
    first.close();
    const second = open(place);
    expect(second.surveys.plan(id)).toEqual(plan);
    expect(second.pages.leftover(id)).toEqual({
      found: due,
      reached: ['http://a.test/'],
      startsReached: ['http://a.test/'],
      skipped: ['http://a.test/b'],
      due: [{ url: 'http://a.test/c', depth: 2, visits: null }],
      visited: 1,
      documents: [{ document: '0123456789abcdef', url: 'http://a.test/' }],
    });
    second.close();
  });

  it('finds the newest survey, by label or without, and names those there are', () => {
    const workspace = open();
    expect(() => workspace.surveys.find()).toThrow(/no survey yet/);
    workspace.surveys.begin('one', now, [], defaultViews, plan);
    const again = workspace.surveys.begin('one', now, [], defaultViews, plan);
    const unnamed = workspace.surveys.begin(undefined, now, [], defaultViews, plan);
    expect(workspace.surveys.find('one').id).toBe(again.id);
    expect(workspace.surveys.find().id).toBe(unnamed.id);
    expect(unnamed.label).toBe(`survey-${unnamed.id}`);
    expect(() => workspace.surveys.find('two')).toThrow(
      expect.objectContaining({ code: 'NOT_FOUND', hint: `there are: one, ${unnamed.label}` }),
    );
    workspace.close();
  });

  it('does not take the terms of a survey that was deleted for those of the next', () => {
    const workspace = open();
    workspace.images.add(file);
    const first = workspace.surveys.begin('one', now, [], defaultViews, plan);
    workspace.pages.add(first.id, record);
    workspace.surveys.delete(first.id);
    workspace.tidy();
    workspace.images.add(file);
    const second = workspace.surveys.begin('two', now, [], defaultViews, plan);
    workspace.pages.add(second.id, record);
    const { placements } = workspace.pages.read(workspace.surveys.get(second.id));
    expect([...placements].map(({ selector }) => selector)).toEqual(
      record.visits[0]!.placements.map(({ selector }) => selector),
    );
    workspace.close();
  });
});
