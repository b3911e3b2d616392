import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';

interface WarmDocument {
  readonly conditions: { readonly cache: string; readonly tool: string };
  readonly hosts: readonly {
    readonly host: string;
    readonly thirdParty: boolean;
    readonly bytes: number;
  }[];
  readonly runs: readonly { readonly failure: string | null }[];
  readonly requests: readonly { readonly url: string; readonly transferBytes: number }[];
}

describe('clock', () => {
  it('calls itself what the device of the view would, and shares the weight out by host', async () => {
    const cwd = temporaryFolder();
    const agents: string[] = [];
    const { origin, address } = await serve({
      '/': (request) => {
        agents.push(request.headers['user-agent'] ?? '');
        return { body: '<!doctype html><p>here' };
      },
    });
    const clocked = (view: string) =>
      runJson<WarmDocument>(
        ['clock', `${origin}/`, '--runs', '1', '--network', 'none', '--view', view],
        { cwd },
      );
    const phone = await clocked('phone');
    await clocked('laptop');
    expect(agents[1]).toMatch(/Android.* Mobile Safari/);
    expect(agents.at(-1)).not.toMatch(/Android|Mobile|Headless/);
    expect(phone.hosts.map(({ host, thirdParty }) => [host, thirdParty])).toEqual([
      [address, false],
    ]);
    const sum = phone.requests.reduce((all, { transferBytes }) => all + transferBytes, 0);
    expect(phone.hosts[0]!.bytes).toBe(sum);
  });
});

describe('clock --warm', () => {
  it('loads a page again with what its cache kept, as sessions of their own', async () => {
    const cwd = temporaryFolder();
    const picture = await photograph(60, 40).jpeg().toBuffer();
    const { origin, asked } = await serve({
      '/': { body: '<!doctype html><img src="/kept.jpg"><img src="/fresh.jpg">' },
      '/kept.jpg': {
        type: 'image/jpeg',
        body: picture,
        headers: { 'cache-control': 'max-age=600' },
      },
      '/fresh.jpg': {
        type: 'image/jpeg',
        body: picture,
        headers: { 'cache-control': 'no-store' },
      },
    });
    const clocked = (label: string) =>
      runJson<{ sessions: WarmDocument[] }>(
        ['clock', `${origin}/`, '--runs', '2', '--network', 'none', '--warm', '--label', label],
        { cwd },
      );
    const { sessions } = await clocked('one');
    const requestsOf = (path: string) => asked.filter((one) => one === path).length;
    // One load before the others, two that are cold, and two that follow on them.
    expect([requestsOf('/kept.jpg'), requestsOf('/fresh.jpg')]).toEqual([3, 5]);
    expect(sessions.map(({ conditions }) => conditions.cache)).toEqual(['cold', 'warm']);
    for (const session of sessions) {
      expect(schemaErrors('clock', session)).toEqual([]);
      expect(session.runs.map(({ failure }) => failure)).toEqual([null, null]);
    }
    const bytesOf = ({ requests }: WarmDocument, path: string) =>
      requests.find(({ url }) => url === origin + path)!.transferBytes;
    const [cold, warm] = sessions as [WarmDocument, WarmDocument];
    expect(bytesOf(cold, '/kept.jpg')).toBeGreaterThan(picture.length);
    expect(bytesOf(warm, '/kept.jpg')).toBe(0);
    expect(bytesOf(warm, '/fresh.jpg')).toBeGreaterThan(picture.length);
    await clocked('two');
    const { pages } = await runJson<{
      pages: Record<'before' | 'after', Pick<WarmDocument, 'conditions'>>[];
    }>(['compare', 'one', 'two'], { cwd });
    expect(
      pages.map(({ before, after }) => [before.conditions.cache, after.conditions.cache]),
    ).toEqual([
      ['cold', 'cold'],
      ['warm', 'warm'],
    ]);
  });
});
