import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Workspace } from '../../src/store/workspace.js';
import { run, twoViews } from '../support/program.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { drawing, photograph } from '../support/pictures.js';
import { serve } from '../support/server.js';
import type { Answer } from '../support/server.js';

const head =
  '<meta name="viewport" content="width=device-width, initial-scale=1"><style>body{margin:0}img{display:block}</style>';
const page = (body: string) => ({
  type: 'text/html',
  body: `<!doctype html><title>t</title>${head}${body}`,
});
const count = 9;

let cwd: string;
let mapped: string[];

/** What `rank --json` prints: from sums, or from the survey itself, which counts findings. */
async function ranked(values: readonly string[], isWhole: boolean): Promise<string> {
  const whole = isWhole ? ['--findings'] : [];
  const call = ['rank', '--json', '--survey', 'kites', ...values, ...whole];
  const { status, stdout, stderr } = await run(call, { cwd });
  if (status !== 0) throw new Error(stderr);
  return stdout;
}

/** Seals a survey as if it had hundreds of thousands of placements. */
function partInto(most: number, folder: string, label: string): void {
  const workspace = Workspace.open(`${cwd}/${folder}`);
  const head = workspace.surveys.find(label);
  workspace.pages.seal(head.id, most);
  expect(workspace.pages.parts(head)).toBeGreaterThan(1);
  workspace.close();
}

/** Pages of one template with a logo, a picture of their own in two widths, and some that others send. */
beforeAll(async () => {
  cwd = temporaryFolder(afterAll);
  const numbers = Array.from({ length: count }, (_, at) => at);
  const small = await Promise.all(
    numbers.map((seed) =>
      photograph(300, 200, seed + 1)
        .jpeg({ quality: 95 })
        .toBuffer(),
    ),
  );
  const large = await Promise.all(
    numbers.map((seed) =>
      photograph(900, 600, seed + 1)
        .jpeg({ quality: 95 })
        .toBuffer(),
    ),
  );
  const picture = (at: number) =>
    `<img src="/own-${at}-300.jpg" srcset="/own-${at}-300.jpg 300w, /own-${at}-900.jpg 900w" sizes="25vw" width="300" alt="">`;
  const { address } = await serve(
    {
      '//kites.test/': page(
        numbers.map((at) => `<a href="/kite/${at}/">${at}</a>`).join('') +
          '<img src="/broken.jpg" width="50" height="50" alt="">',
      ),
      '/broken.jpg': { type: 'image/jpeg', body: 'no image' },
      '/logo.png': { type: 'image/png', body: await drawing(400, 100).png().toBuffer() },
      '//others.test/seen.jpg': {
        type: 'image/jpeg',
        body: await photograph(640, 480, 40).jpeg({ quality: 95 }).toBuffer(),
      },
      ...Object.fromEntries<Answer>(
        numbers.flatMap((at): [string, Answer][] => [
          [`/own-${at}-300.jpg`, { type: 'image/jpeg', body: small[at]! }],
          [`/own-${at}-900.jpg`, { type: 'image/jpeg', body: large[at]! }],
          [
            `/kite/${at}/`,
            page(
              `<header><img src="/logo.png" width="${100 + 20 * (at % 3)}" alt=""></header><main>${picture(at)}</main>` +
                (at % 2 === 0
                  ? '<img src="http://others.test/seen.jpg" width="160" height="120" alt="">'
                  : `<img src="/own-${(at + 2) % count}-900.jpg" style="display:none" alt="">`),
            ),
          ],
        ]),
      ),
    },
    afterAll,
  );
  writeFiles(cwd, {
    'pages.csv':
      'address,visits\nhttp://kites.test/,40\nhttp://kites.test/kite/1/,900\nhttp://kites.test/kite/4/,20\n',
  });
  mapped = ['--map-host', `*.test=${address}`];
  const { status, stderr } = await run(
    [
      ...['survey', 'http://kites.test/', '--list', 'pages.csv', '--label', 'kites'],
      ...[...mapped, ...twoViews],
    ],
    { cwd },
  );
  if (status !== 0) throw new Error(stderr);
  partInto(12, '.zealous-lynx', 'kites');
}, 120_000);

describe('rank of a survey in several parts', () => {
  it.each(['family', 'image', 'page', 'group', 'host', 'cause'])(
    'prints by %s what the whole survey says, to the byte',
    async (by) => {
      const summed = await ranked(['--by', by], false);
      expect(summed).toBe(await ranked(['--by', by], true));
      const { rows, images } = JSON.parse(summed) as Record<'rows' | 'images', unknown[]>;
      expect(rows.length).toBeGreaterThan(1);
      expect(images.length).toBeGreaterThan(count);
    },
  );

  it('adds it up once, and again where the policy judges otherwise', async () => {
    const addsUp = async (...values: string[]) => {
      const { stderr } = await run(['rank', '--survey', 'kites', ...values], { cwd });
      return stderr.includes('adding up images');
    };
    writeFiles(cwd, {
      'other.yaml': `policy:
  rules:
    - address: '*/logo.png'
      exempt: true
      reason: drawn once
    - selector: '#nowhere'
      exempt: true
      reason: gone
groups:
  - name: kites
    pages: ['*/kite/*']
`,
    });
    expect(await addsUp()).toBe(false);
    const other = ['--config', 'other.yaml'];
    expect(await addsUp(...other)).toBe(true);
    expect(await addsUp(...other, '--by', 'image', '--top', '2')).toBe(false);
    const summed = await ranked([...other, '--by', 'group'], false);
    expect(summed).toBe(await ranked([...other, '--by', 'group'], true));
    expect(summed).toContain('drawn once');
    const { rows, unmatchedRules } = JSON.parse(summed) as {
      rows: { key: string }[];
      unmatchedRules: { reason: string }[];
    };
    expect(rows.map(({ key }) => key)).toContain('kites');
    expect(unmatchedRules.map(({ reason }) => reason)).toEqual(['gone']);
    // What was added up for the other policy is kept by nobody.
    expect(await addsUp()).toBe(true);
  });

  it('judges what has no body as soon as it comes', async () => {
    const on = ['--workspace', 'bare'];
    const survey = (...values: string[]) =>
      run(
        ['survey', 'http://kites.test/', '--pages', '4', ...values, ...on, ...mapped, ...twoViews],
        {
          cwd,
        },
      );
    await survey('--label', 'bare', '--no-bodies');
    partInto(2, 'bare', 'bare');
    const both = async () => {
      const call = ['rank', '--survey', 'bare', '--json', ...on];
      const [{ stdout }, whole] = [
        await run(call, { cwd }),
        await run([...call, '--findings'], { cwd }),
      ];
      expect(stdout).toBe(whole.stdout);
      return (JSON.parse(stdout) as { perVisit: Record<string, number> }).perVisit;
    };
    const before = await both();
    expect(before['unknownBytes']).toBeGreaterThan(0);
    expect(before['neededBytes']).toBe(0);
    await survey('--label', 'later');
    expect((await both())['neededBytes']).toBeGreaterThan(0);
  });

  it('reads it whole where only some of it is asked for', async () => {
    const phone = await ranked(['--view', 'phone'], false);
    expect(phone).toBe(await ranked(['--view', 'phone'], true));
    const { perVisit } = JSON.parse(phone) as { perVisit: { sentBytes: number } };
    const whole = JSON.parse(await ranked([], false)) as { perVisit: typeof perVisit };
    expect(perVisit.sentBytes).not.toBe(whole.perVisit.sentBytes);
  });
});
