import { describe, expect, it } from 'vitest';
import { allFixes } from '../../../src/tasks/trial/fixes/index.js';
import { madeRecording } from '../../support/made-recording.js';

const fix = (name: string) => allFixes.find((one) => one.name === name)!;
const home = 'http://bay.test/';
const html = (body: string) => ({ url: home, type: 'html' as const, body });

describe('fixes', () => {
  it('tell what becomes of requests: put off, early, deferred, sharing a connection', async () => {
    const { recording, tools } = madeRecording(
      [
        html(
          '<head><script src="a.js"></script></head><img src="near.png"><img src="far.png"><img src="top.png"><img src="slide.png">',
        ),
      ],
      {
        firstScreen: [`${home}top.png`],
        largest: { selector: '', url: `${home}top.png` },
      },
    );
    const placed = (name: string, top: number, left = 0) => ({
      ...{ kind: 'img' as const, selector: 'img', url: home + name, top, left },
      slot: { width: 10, height: 10 },
    });
    const layout = {
      placements: [
        placed('far.png', 9_000),
        placed('near.png', 900),
        placed('top.png', 0),
        placed('slide.png', 10, 1_900),
      ],
      view: { width: 1280, height: 800, density: 1 },
    };
    const told = async (name: string) => {
      const { requests } = await fix(name).apply(recording, tools);
      return Object.fromEntries(requests!(layout));
    };
    expect(await told('lazy')).toEqual({
      [`${home}far.png`]: 'gone',
      [`${home}slide.png`]: 'gone',
      [`${home}near.png`]: { isLazy: true },
    });
    expect(await told('early')).toEqual({ [`${home}top.png`]: { rank: 3 } });
    expect(await told('defer')).toEqual({ [`${home}a.js`]: { isDeferred: true } });
    const secure = madeRecording([{ url: 'https://bay.test/', type: 'html', body: '<p>' }]);
    const { requests } = await fix('http2').apply(secure.recording, secure.tools);
    expect([...requests!(layout)]).toEqual([['https://bay.test/', { isMultiplexed: true }]]);
  });
});
