import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const script = fileURLToPath(new URL('../../scripts/setup.mjs', import.meta.url));

function setUp(env: Readonly<Record<string, string>> = {}) {
  return spawnSync(process.execPath, [script], {
    encoding: 'utf8',
    env: { ...process.env, ...env },
  });
}

describe('the set-up', () => {
  it('has nothing to do or to say when nothing has changed', () => {
    expect(setUp()).toMatchObject({ status: 0, stdout: '', stderr: '' });
  });

  it('says when the browser that the environment names cannot be run', () => {
    const { status, stderr } = setUp({ ZEALOUS_LYNX_BROWSER: '/no/such/browser' });
    expect(status).toBe(3);
    expect(stderr).toBe(
      'setup: ZEALOUS_LYNX_BROWSER is /no/such/browser, which is no program that can be run.\n',
    );
  });
});
