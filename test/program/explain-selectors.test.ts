import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { UsageError } from '../../src/core/base/errors.js';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import type { RankedImage } from '../../src/core/rank/ranked-image.js';
import { rankImages } from '../../src/core/rank/ranking.js';
import { findSubject } from '../../src/core/rank/subject.js';
import { Workspace } from '../../src/store/workspace.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { scene } from '../support/pictures.js';
import { oneView, run } from '../support/program.js';

const cwd = temporaryFolder(afterAll);
let images: readonly RankedImage[];

/** A page on which each image stands in a place of its own. */
beforeAll(async () => {
  const whole = await scene(300, 200).png().toBuffer();
  const names = ['header', 'card', 'second', 'shadow', 'long', 'framed'];
  const files = names.map(
    async (name, at) =>
      [`site/img/${name}.jpg`, await sharp(whole).rotate(at).jpeg().toBuffer()] as const,
  );
  writeFiles(cwd, {
    'site/index.html': `<!doctype html><title>Kites</title>
      <style>.hero::before { content: ''; display: block; height: 60px; background: url(img/header.jpg) }</style>
      <header class="hero wide"></header>
      <main id="programme">
        <div class="cards large"><figure class="card"><p><img class="photo" src="img/card.jpg" width="90" data-day="2"></p></figure></div>
        <div class="cards"><a class="card"><img src="img/second.jpg" width="80" loading="lazy"></a></div>
        <div class="booth"><template shadowrootmode="open"><span class="inner"><img src="img/shadow.jpg" width="70"></span></template></div>
        <div class="long ${'x'.repeat(100_000)}"><img src="img/long.jpg" width="50"></div>
      </main>
      <iframe class="beside" srcdoc='<body class="map"><img src="img/framed.jpg" width="60">'></iframe>`,
    ...Object.fromEntries(await Promise.all(files)),
  });
  const survey = await run(['survey', 'site', '--no-encode', ...oneView], { cwd });
  expect(survey.status).toBe(0);
  const workspace = Workspace.open(join(cwd, '.zealous-lynx'));
  const facts = workspace.pages.read(workspace.surveys.find());
  workspace.close();
  images = rankImages(
    {
      ...facts,
      encoded: [],
      pictures: {
        ofFile: Int32Array.from(facts.files.keys()),
        files: facts.files.map((_, at) => [at]),
      },
    },
    defaultPolicy,
  ).images;
});

/** The name of the image that a selector means; what is said and to be done where it means none. */
function meantBy(selector: string): string {
  try {
    const subject = findSubject(selector, images, []);
    return subject.kind === 'image' ? subject.image.url.replace(/.*\/|\.jpg/g, '') : subject.kind;
  } catch (error) {
    const { message, hint } = error as UsageError;
    return `${message} – ${hint}`;
  }
}

describe('a CSS selector as a person writes it', () => {
  it.each([
    ['.hero::before', 'header'],
    ['header.wide', 'header'],
    ['figure.card img', 'card'],
    ['.cards.large > .card > p > img', 'card'],
    ['#programme img.photo', 'card'],
    ['img[data-day="2"]', 'card'],
    ['figure img:not([loading])', 'card'],
    ['main a img, .nowhere', 'second'],
    ['.card > img', 'second'],
    ['main img[loading=lazy]', 'second'],
    ['.cards:not(.large) img', 'second'],
    [':is(a, p.none) > img', 'second'],
    ['.inner > img', 'shadow'],
    ['.booth .inner img', 'shadow'],
    ['.long > img', 'long'],
    ['body.map > img', 'framed'],
  ])('%s means the image %s', (selector, name) => {
    expect(meantBy(selector)).toBe(name);
  });

  it.each(['header > img', 'figure > img', '.cards .photo.large', 'img.card', '#card img', 'div['])(
    '%s means none',
    (selector) => {
      expect(meantBy(selector)).toMatch(/^the survey has no page/);
    },
  );

  it.each([
    ['p + a img', '+'],
    ['header ~ main img', '~'],
    ['div:first-child img', ':first-child'],
    ['a[href] img', '[href]'],
    ['img:not(:hover)', ':hover'],
    ['a:not([href]) > img', '[href]'],
    [':is(a[href] img)', '[href]'],
  ])('%s is told to ask for what is not kept: %s', (selector, part) => {
    expect(meantBy(selector)).toContain(`a survey does not keep what "${part}" asks for`);
  });

  it('is what explain takes', async () => {
    const { status, stdout } = await run(['explain', '.booth .inner img'], { cwd });
    expect([status, stdout.split('\n')[0]]).toEqual([
      0,
      expect.stringContaining('/img/shadow.jpg'),
    ]);
  });
});
