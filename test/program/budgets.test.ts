import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { runHere } from '../support/program.js';

/** What the program says of a config file with these lines. */
async function told(lines: string): Promise<string> {
  const cwd = temporaryFolder();
  writeFileSync(join(cwd, 'zealous-lynx.config.yaml'), lines);
  const { status, stderr } = await runHere(['gate'], { cwd });
  expect(status).toBe(lines === '' || /workspace/.test(stderr) ? expect.any(Number) : 2);
  return stderr;
}

const budget = (settings: string) => `budgets:\n  - { ${settings}, reason: light }\n`;

describe('budgets in the config file', () => {
  it.each([
    ['measure: speed, most: 1', /budgets\[0\]\.measure: expected one of waste, bytes/],
    ['measure: bytes', /budgets\[0\]: expected either most .* or margin/],
    ['measure: bytes, most: 1, margin: 1, against: autumn', /expected either most/],
    ['measure: bytes, margin: 0.1', /expected margin and against together/],
    ['measure: bytes, most: -4', /budgets\[0\]\.most: expected a number from 0/],
    ['measure: waste, type: script, most: 1', /waste without type: it takes image, party, host/],
    ['measure: bytes, page: /a, group: /b, most: 1', /of a page or of a group, not of both/],
    ['measure: load, group: /b, most: 1', /loads of clock are of pages/],
    ['measure: bytes, network: dsl, most: 1', /only markers of loads have that/],
    ['measure: finding, most: 0', /the id of a finding/],
    ['measure: finding, finding: kites, most: 0', /budgets\[0\]\.finding: expected the id/],
    ['measure: newImage', /most \(bytes that a new image may have\)/],
    ['measure: bytes, most: 1, mots: 2', /there is no mots/],
  ])('are refused: %s', async (settings, words) => {
    expect(await told(budget(settings))).toMatch(words);
  });

  it('must not contradict each other, nor share a name', async () => {
    const two = (first: string, second: string) =>
      `budgets:\n  - { ${first}, reason: a }\n  - { ${second}, reason: b }\n`;
    expect(await told(two('measure: bytes, most: 1', 'measure: bytes, most: 2'))).toMatch(
      /budgets\[1\]: expected one budget for a number: budgets\[0\] is about the same/,
    );
    const named = two('name: x, measure: bytes, most: 1', 'name: x, measure: waste, most: 2');
    expect(await told(named)).toMatch(/budgets\[1\]: expected a name of its own/);
    const reason = await told('budgets:\n  - { measure: bytes, most: 1 }\n');
    expect(reason).toMatch(/budgets\[0\]\.reason: expected a reason/);
  });

  it('are asked for where there are none', async () => {
    expect(await told('pages: 5\n')).toMatch(/has no budgets .*gate --suggest/);
  });
});

describe('channels of alarms in the config file', () => {
  it.each([
    ['webhook: kites', /alarms\[0\]\.webhook: expected an address that begins with http/],
    ['secret: x', /alarms\[0\]: expected one of webhook, email and command/],
    ['email: { to: [a@b.test], from: c@d.test, server: mail }', /expected smtp:\/\/HOST:PORT/],
    ['command: []', /alarms\[0\]\.command/],
  ])('are refused: %s', async (settings, words) => {
    const stderr = await told(`alarms:\n  - { ${settings} }\n`);
    expect(stderr).toMatch(words);
    expect(stderr).not.toContain('kites');
  });
});
