import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { expect, it } from 'vitest';
import { markerNames } from '../../src/core/load/markers.js';
import { temporaryFolder } from '../support/folder.js';
import { run, runJson } from '../support/program.js';
import { copyDemoWorkspace, demoCache, sharedDemo } from '../support/shared-demo.js';
import { schemaErrors } from '../support/schemas.js';

interface Round {
  readonly outcome: string;
  readonly told: number;
  readonly survey: { readonly perVisit: { readonly bytes: number } };
  readonly judgements: readonly {
    readonly verdict: string;
    readonly budget: { readonly measure: string };
    readonly culprit: { readonly url: string } | null;
  }[];
}

interface Story {
  readonly steps: readonly [
    Round,
    Round,
    Round,
    Round,
    { readonly surveys: readonly { readonly survey: { readonly label: string } }[] },
  ];
}

it('the demo tells of four weeks: refitted, an upload that budgets name and somebody hears of, mended', async () => {
  // Where the demo has run before, as its help has it: its encodes are not made again.
  const cwd = temporaryFolder();
  const demo = await sharedDemo();
  copyDemoWorkspace(demo, cwd);
  const env = { ZEALOUS_LYNX_CACHE: demoCache() };
  const story = await runJson<Story>(['demo', '--weeks'], { cwd, env });
  expect(schemaErrors('demo-weeks', story)).toEqual([]);
  const { steps } = story;
  const [one, two, three, four, history] = steps;
  const rounds = [one, two, three, four];
  expect(rounds.map(({ outcome }) => outcome)).toEqual(Array(4).fill('done'));
  const bytes = rounds.map(({ survey }) => survey.perVisit.bytes) as [
    number,
    number,
    number,
    number,
  ];
  expect(bytes[1]).toBeLessThan(bytes[0] / 5);
  expect(bytes[2]).toBeGreaterThan(bytes[1] * 1.5);
  expect(bytes[3]).toBeLessThan(bytes[1] * 1.1);

  const broken = (round: Round) => round.judgements.filter(({ verdict }) => verdict === 'broken');
  // Loads on a machine that is busy with other tests may be slower at any time.
  const ofSurveys = (round: Round) =>
    broken(round).filter(
      ({ budget }) => !(markerNames as readonly string[]).includes(budget.measure),
    );
  const upload = broken(three).find(({ budget }) => budget.measure === 'newImage')!;
  expect(upload.culprit!.url).toBe('http://brindlebay.test/img/journal/DSC_0917.jpg');
  // Everybody hears of each alarm once, and once when it is over.
  expect(three.told).toBe(broken(three).length);
  expect(ofSurveys(three).length).toBeGreaterThanOrEqual(4);
  expect(ofSurveys(four)).toEqual([]);
  expect(four.told).toBeGreaterThanOrEqual(ofSurveys(three).length);
  expect(history.surveys.map(({ survey }) => survey.label)).toEqual([
    'brindle-bay',
    ...[1, 2, 3, 4].map((week) => `week-${week}`),
  ]);
  const picture = readFileSync(join(cwd, 'brindle-bay-history.png'));
  expect((await sharp(picture).metadata()).width).toBeGreaterThan(1_000);
  const gate = await run(['history', 'week-2', 'week-3'], { cwd });
  expect(gate.stdout).toMatch(/DSC_0917\.jpg +\+\d+ kB +new/);
  // Four surveys, refits and sets of loads, beside two other files on a machine that may have two processors.
}, 1_200_000);
