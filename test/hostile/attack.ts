import { appendFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { fatesFile } from './fates.js';
import type { Fate } from './fates.js';
import { temporaryFolder } from '../support/folder.js';
import { oneView, outcomeOf, start } from '../support/program.js';
import { serve } from '../support/server.js';
import type { Answers, TestServer } from '../support/server.js';

/** Declares an attack with its fate; the test fails when it turns out otherwise. */
export function attack(fate: Fate, name: string, run: () => Promise<void>, seconds = 120): void {
  it(
    name,
    async () => {
      await run();
      appendFileSync(fatesFile, `${fate}\n`);
    },
    seconds * 1_000,
  );
}

/** A document that a survey prints, as far as attacks are judged by it. */
export interface Surveyed {
  readonly pages: readonly {
    readonly url: string;
    readonly status: number | null;
    readonly error?: string;
  }[];
  readonly skipped: readonly { readonly url: string; readonly reason: string }[];
}

export interface SurveyOutcome {
  readonly status: number | null;
  readonly seconds: number;
  readonly document: Surveyed;
  readonly stdout: string;
  readonly stderr: string;
  readonly cwd: string;
  readonly site: TestServer;
}

/** Words of the runtime, the driver and the browser that no user should meet. */
const innerWords =
  /\b(?:TypeError|RangeError|ReferenceError|SyntaxError|UNEXPECTED|Protocol error|cdpSession|net::|ERR_[A-Z]|undefined|NaN|Infinity|Execution context|Target (?:page|closed)|at \w+ \()/;

/** Serves an attack and surveys it in one view; whatever happens, it is said in plain words. */
export async function surveyed(
  answers: Answers,
  more: readonly string[] = [],
): Promise<SurveyOutcome> {
  const cwd = temporaryFolder();
  const site = await serve(answers);
  const began = performance.now();
  const values = ['survey', `${site.origin}/`, ...oneView, '--json', ...more];
  const { status, stdout, stderr } = await outcomeOf(start(values, { cwd }));
  const seconds = (performance.now() - began) / 1000;
  expect([0, 3], stderr).toContain(status);
  expect(stderr).not.toMatch(innerWords);
  const document = JSON.parse(stdout) as Surveyed;
  for (const { error = '' } of document.pages) expect(error).not.toMatch(innerWords);
  return { status, seconds, document, stdout, stderr, cwd, site };
}

/** A document with a title. */
export function page(body: string, head = ''): string {
  return `<!doctype html><html lang="en"><head><title>Kites</title>${head}</head><body>${body}</body></html>`;
}
