import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { run, runJson } from '../support/program.js';
import { serve } from '../support/server.js';

interface FilesDocument {
  readonly finding: { readonly files: readonly { readonly data: { readonly share: number } }[] };
}

/** A rule of 4 kB that hardly compresses; without a selector of its own it matches the paragraph of the page. */
const rule = (name: string, selector = 'p') => {
  const digits = Array.from({ length: 60 }, (_, at) =>
    createHash('sha256').update(`${name} ${at}`).digest('hex'),
  );
  return `${selector}{--${name}:"${digits.join('')}"}`;
};

const used = [
  `@media (hover:none){${rule('touched')}}`,
  `@media (hover:hover){${rule('pointed')}}`,
  `@media (max-width:400px){${rule('narrow')}}`,
  `@media (min-width:700px) and (max-width:900px){${rule('middling')}}`,
  `@media (min-width:1900px){${rule('wide')}}`,
  `@media (min-resolution:2.5dppx){${rule('dense')}}`,
];

describe('the rules of a style sheet that are used', () => {
  it('are those of every width, pointer and density, though they are measured in few of them', async () => {
    const cwd = temporaryFolder();
    const sheet = [...used, rule('idle', '.gone'), rule('idler', '.gone .too')].join('\n');
    const { origin } = await serve({
      '/': {
        body: '<!doctype html><title>Kites</title><meta name="viewport" content="width=device-width"><link rel="icon" href="data:,"><link rel="stylesheet" href="/kites.css"><p>Kites',
      },
      '/kites.css': { type: 'text/css', body: sheet },
    });
    await run(['survey', `${origin}/`], { cwd });
    const { finding } = await runJson<FilesDocument>(['explain', 'unused-style'], { cwd });
    // Two of eight rules of nearly one length.
    expect(finding.files.map(({ data }) => data.share)).toEqual([0.25]);
  });

  it('are those of every view where no window is swept over all widths', async () => {
    const cwd = temporaryFolder();
    const tablets = `@media (min-width:700px){${rule('tablets')}}`;
    const { origin } = await serve({
      '/': {
        body: '<!doctype html><title>Kites</title><meta name="viewport" content="width=device-width"><link rel="icon" href="data:,"><link rel="stylesheet" href="/kites.css"><p>Kites',
      },
      '/kites.css': { type: 'text/css', body: [tablets, rule('idle', '.gone')].join('\n') },
    });
    await run(['survey', `${origin}/`, '--view', 'phone', '--view', 'tablet'], { cwd });
    const { finding } = await runJson<FilesDocument>(['explain', 'unused-style'], { cwd });
    expect(finding.files.map(({ data }) => data.share)).toEqual([0.5]);
  });

  it('are those of states, of classes that come and go while it is scrolled, and of shadow roots and frames, too', async () => {
    const cwd = temporaryFolder();
    const there = [
      rule('pointed', 'p:hover'),
      rule('scrolled', 'body.scrolled p'),
      rule('framed', 'blockquote'),
      rule('shadowed', 'em.inside'),
    ];
    const sheet = [...there, rule('idle', 'p.gone em'), rule('idler', 'dl dt')].join('\n');
    const { origin } = await serve({
      '/': {
        body: `<!doctype html><title>Kites</title><link rel="icon" href="data:,"><link rel="stylesheet" href="/kites.css">
          <p style="height:4000px">Kites</p><iframe srcdoc="<link rel=stylesheet href=/kites.css><blockquote>Kites</blockquote>"></iframe><div></div>
          <script>
            document.querySelector('div').attachShadow({ mode: 'open' }).innerHTML = '<link rel="stylesheet" href="/kites.css"><em class="inside">Kites</em>';
            addEventListener('scroll', () => document.body.classList.toggle('scrolled', scrollY > 0));
          </script>`,
      },
      '/kites.css': { type: 'text/css', body: sheet },
    });
    await run(['survey', `${origin}/`], { cwd });
    const { finding } = await runJson<FilesDocument>(['explain', 'unused-style'], { cwd });
    expect(finding.files.map(({ data }) => data.share)).toEqual([0.33]);
  });
});
