import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { run, runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve, serveSecurely } from '../support/server.js';

interface AccessDocument {
  readonly runs: readonly {
    readonly failure: string | null;
    readonly status: number;
    readonly finalUrl: string;
    readonly cutOff?: number;
    readonly markers: { readonly load: number | null; readonly firstPaint: number | null };
  }[];
  readonly requests: readonly { readonly url: string; readonly end: number | null }[];
}

const once = ['--runs', '1', '--network', 'none', '--no-interactive'];

describe('clock of a page that not everybody sees', () => {
  it('sends credentials, headers and cookies to their host alone, and keeps none of them', async () => {
    const cwd = temporaryFolder();
    const heard: Record<string, unknown>[] = [];
    const other = await serve({
      '/elsewhere.png': (request) => {
        heard.push({ other: request.headers.authorization ?? request.headers.cookie ?? 'nothing' });
        return { status: 404 };
      },
    });
    const elsewhere = other.origin.replace('127.0.0.1', 'localhost');
    const { origin } = await serve({
      '/': ({ headers }) => {
        if (headers.authorization !== `Basic ${btoa('ada:s3cret')}`) return { status: 401 };
        heard.push({ cookie: headers.cookie, key: headers['x-key'], agent: headers['user-agent'] });
        return { body: `<!doctype html><p>in<img src="${elsewhere}/elsewhere.png">` };
      },
    });
    const given = ['--cookie', '127.0.0.1=session=abc', '--header', '127.0.0.1=X-Key:$KEY'];
    const document = await runJson<AccessDocument>(
      [
        ...['clock', origin.replace('://', '://ada:s3cret@'), ...once, ...given],
        ...['--user-agent', 'Kite/1'],
      ],
      { cwd, env: { KEY: 'from outside' } },
    );
    expect(document.runs[0]).toMatchObject({ status: 200, failure: null });
    expect(heard.filter(({ other }) => other !== undefined).at(-1)).toEqual({ other: 'nothing' });
    expect(heard.filter(({ agent }) => agent !== undefined).at(-1)).toEqual({
      ...{ cookie: 'session=abc', key: 'from outside', agent: 'Kite/1' },
    });
    expect(JSON.stringify(document)).not.toMatch(/s3cret|session=abc|from outside/);
  });

  it('takes cookies and local storage that a browser saved', async () => {
    const cwd = temporaryFolder();
    const { origin, asked } = await serve({
      '/': ({ headers }) => ({
        body: `<!doctype html><p>${headers.cookie ?? 'no cookie'}<script>
          document.write('<img src="/' + localStorage.getItem('kite') + '.png">')</script>`,
      }),
    });
    const cookie = { name: 'who', value: 'ada', domain: '127.0.0.1', path: '/', expires: -1 };
    const state = {
      cookies: [{ ...cookie, httpOnly: true, secure: false, sameSite: 'Lax' }],
      origins: [{ origin, localStorage: [{ name: 'kite', value: 'delta' }] }],
    };
    writeFileSync(join(cwd, 'state.json'), JSON.stringify(state));
    await runJson(['clock', `${origin}/`, ...once, '--browser-state', 'state.json'], { cwd });
    expect(asked).toContain('/delta.png');
    expect(asked).not.toContain('/null.png');
  });

  it('accepts a certificate that does not verify only where it is told to', async () => {
    const cwd = temporaryFolder();
    const { origin } = await serveSecurely({ '/': { body: '<!doctype html><p>here' } });
    const refused = await run(['clock', `${origin}/`, ...once], { cwd });
    expect(refused.stderr).toContain('certificate does not verify');
    const taken = await runJson<AccessDocument>(
      ['clock', `${origin}/`, ...once, '--any-certificate'],
      { cwd },
    );
    expect(taken.runs[0]).toMatchObject({ status: 200, failure: null });
  });

  it('times no page to sign in under the name of another', async () => {
    const cwd = temporaryFolder();
    const form = { body: '<!doctype html><form><input type=password name=p></form>' };
    const { origin } = await serve({
      '/account': { location: '/sign-in' },
      '/sign-in': form,
      '/old': { location: '/new' },
      '/new': { body: '<!doctype html><p>moved' },
    });
    const shut = await run(['clock', `${origin}/account`, ...once], { cwd });
    expect(shut.status).not.toBe(0);
    expect(shut.stderr).toContain(`ends on a page to sign in: ${origin}/sign-in`);
    expect(shut.stderr).toContain('--browser-state');
    const asked = await run(['clock', `${origin}/sign-in`, ...once], { cwd });
    expect(asked.status).toBe(0);
    const moved = await run(['clock', `${origin}/old`, ...once], { cwd });
    expect(moved.stdout).toContain(`/old (which redirects to ${origin}/new)`);
  });
});

describe('clock --timeout', () => {
  it('tells what had arrived of a page that did not finish', async () => {
    const cwd = temporaryFolder();
    const picture = await photograph(60, 40).jpeg().toBuffer();
    const { origin } = await serve({
      '/': { body: '<!doctype html><p>here<img src="/there.jpg"><img src="/never.jpg">' },
      '/there.jpg': { type: 'image/jpeg', body: picture },
      '/never.jpg': { type: 'image/jpeg', body: picture.subarray(0, 200), endless: true },
    });
    const call = ['clock', `${origin}/`, ...once, '--timeout', '3'];
    const document = await runJson<AccessDocument>(call, { cwd });
    expect(schemaErrors('clock', document)).toEqual([]);
    const [load] = document.runs;
    expect(load).toMatchObject({ failure: null, cutOff: 3_000 });
    expect(load!.markers.load).toBeNull();
    expect(load!.markers.firstPaint).toBeGreaterThan(0);
    const ends = document.requests.map(({ url, end }) => [new URL(url).pathname, end !== null]);
    expect(Object.fromEntries(ends)).toMatchObject({ '/there.jpg': true, '/never.jpg': false });
    const text = await run(call, { cwd });
    expect(text.stdout).toContain('1 load of 1 had not finished after 3 s');
  });

  it('fails where nothing had arrived', async () => {
    const cwd = temporaryFolder();
    const { origin } = await serve({ '/': { wait: 60_000 } });
    const { status, stderr } = await run(['clock', `${origin}/`, ...once, '--timeout', '2'], {
      cwd,
    });
    expect(status).not.toBe(0);
    expect(stderr).toContain('did not finish loading in 2 s');
  });
});
