import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';

/** Views enough to tell a dense screen from another, where all of them would only take longer. */
export const twoViews = ['--view', 'phone', '--view', 'laptop'] as const;
export const oneView = ['--view', 'laptop'] as const;

/** The built program. */
export const programFile = fileURLToPath(new URL('../../dist/bundle/cli/main.js', import.meta.url));

export interface Outcome {
  readonly status: number | null;
  readonly stdout: string;
  readonly stderr: string;
}

export interface Call {
  readonly cwd: string;
  readonly env?: Readonly<Record<string, string>>;
}

/** Starts the built program; the caller waits for it, or stops it. */
export function start(values: readonly string[], { cwd, env = {} }: Call): ChildProcess {
  return spawn(process.execPath, [programFile, ...values], {
    cwd,
    // Five seconds of rest after every load are asked for by those tests alone that are about them.
    env: {
      ...process.env,
      NO_COLOR: '1',
      COLUMNS: '140',
      ZEALOUS_LYNX_INTERACTIVE: 'false',
      ...env,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
}

/** Runs the built program to its end. */
export async function run(values: readonly string[], call: Call): Promise<Outcome> {
  return outcomeOf(start(values, call));
}

/** Waits for a started program, and gathers what it printed. */
export async function outcomeOf(child: ChildProcess): Promise<Outcome> {
  let stdout = '';
  let stderr = '';
  child.stdout?.setEncoding('utf8').on('data', (text: string) => (stdout += text));
  child.stderr?.setEncoding('utf8').on('data', (text: string) => (stderr += text));
  await once(child, 'close');
  return { status: child.exitCode, stdout, stderr };
}

/** Runs the built program with `--json` and reads the document it prints. */
export async function runJson<Document>(values: readonly string[], call: Call): Promise<Document> {
  const { status, stdout, stderr } = await run([...values, '--json'], call);
  if (status !== 0) throw new Error(`exit status ${status}: ${stderr}`);
  return JSON.parse(stdout) as Document;
}
