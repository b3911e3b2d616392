import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { describe, expect, it } from 'vitest';
import { serveSins } from '../../demo/archive/server.js';
import type { SinPage } from '../../demo/archive/server.js';
import type { Place, Sin } from '../../demo/archive/sin.js';
import { sins as inOrder } from '../../demo/archive/sins/index.js';
import { temporaryFolder } from '../support/folder.js';
import { deliveryOf, surveyArchive } from './delivery.js';

const variants = 40;
/** Sins of a page, of which about half are mended. */
const perPage = 12;

/** What moves a page is seen only at its top. */
const sins = inOrder.toSorted(
  (a, b) => Number(b.finding === 'layout-shift') - Number(a.finding === 'layout-shift'),
);

function placeOf(number: number): Place {
  const host = `kites-${number}.test`;
  return {
    id: `v${number}`,
    page: `https://${host}/`,
    file: (name, subdomain) => `https://${subdomain ? `${subdomain}.` : ''}${host}/${name}`,
    third: (party, name) => `https://${party}-${number}.test/${name}`,
  };
}

/** Pages with sins chosen by chance, each committed or mended. */
function drawPages(): SinPage[] {
  const random = xoroshiro128plus(20_261_126);
  const chance = (below: number) => uniformInt(random, 0, below - 1);
  return Array.from({ length: variants }, (_, number) => {
    const chosen = new Set<Sin>();
    while (chosen.size < perPage) chosen.add(sins[chance(sins.length)]!);
    return {
      title: `Kites ${number}`,
      place: placeOf(number),
      sins: sins
        .filter((sin) => chosen.has(sin))
        .map((sin) => ({ sin, isMended: chance(2) === 0 })),
    };
  });
}

/** What is true of a page: by its sins, and by what they come to together. */
function truthOf({ place, sins: own }: SinPage): Set<string> {
  const committed = own.filter(({ isMended }) => !isMended).map(({ sin }) => sin);
  const truth = new Set(committed.flatMap(({ finding, also = [] }) => [finding, ...also]));
  // Browsers that keep a document for days do not ask whether it is still good.
  if (truth.has('long-lived-document')) truth.delete('no-validator');
  const heads = own.map(({ sin, isMended }) => sin.parts(place, isMended).head ?? '').join('');
  if (/<script src="[^"]*"><\/script>.*<link rel="stylesheet"/s.test(heads))
    truth.add('late-style');
  const files = own.flatMap(({ sin, isMended }) =>
    Object.values(sin.parts(place, isMended).files ?? {}),
  );
  if (files.filter(({ type }) => type?.startsWith('font/')).length > 4) truth.add('many-fonts');
  return truth;
}

const introduction = [
  '# How often findings are right',
  '',
  `${variants} pages were made by chance (with a fixed seed), each with ${perPage} of the faults that findings tell of; about half of`,
  'the faults of a page are mended, so that everything is as with the fault but the fault. The pages were surveyed in two',
  'views, and each finding was held against each page. `needed-by-few`, which compares templates, was tried on the archive',
  'of the demo alone: there with the fault and without. `npm run test:findings` tries all of it again.',
  '',
  '| finding | pages with the fault | pages without | judged right |',
  '| --- | ---: | ---: | ---: |',
];

describe('variants of pages', () => {
  it('are judged right', async () => {
    const cwd = temporaryFolder();
    const pages = drawPages();
    const archive = await serveSins(pages);
    const list = join(cwd, 'pages.txt');
    writeFileSync(list, `${archive.found.join('\n')}\n`);
    const wrong: string[] = [];
    const right = new Map(inOrder.map(({ finding }) => [finding, { there: 0, right: 0 }]));
    try {
      await surveyArchive(['--list', list], archive, cwd);
      for (const [at, page] of pages.entries()) {
        const found = new Set((await deliveryOf(archive.found[at]!, cwd)).map(({ id }) => id));
        const truth = truthOf(page);
        for (const [finding, counts] of right) {
          if (truth.has(finding)) counts.there++;
          if (truth.has(finding) === found.has(finding)) counts.right++;
          else wrong.push(`${page.place.page} ${truth.has(finding) ? 'lacks' : 'has'} ${finding}`);
        }
      }
    } finally {
      await archive.close();
    }
    expect(wrong).toEqual([]);
    const rows = [...right].map(
      ([finding, { there, right: judged }]) =>
        `| \`${finding}\` | ${there} | ${variants - there} | ${judged} |`,
    );
    await expect(`${[...introduction, ...rows].join('\n')}\n`).toMatchFileSnapshot(
      '../../docs/findings-tried.md',
    );
  });
});
