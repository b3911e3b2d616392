import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { PassThrough } from 'node:stream';
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

/** Starts the built program, or where it was installed; the caller waits for it, or stops it. */
export function start(
  values: readonly string[],
  { cwd, env = {} }: Call,
  program = programFile,
): ChildProcess {
  return spawn(process.execPath, [program, ...values], {
    cwd,
    // Five seconds of rest after every load are asked for by those tests alone that are about them.
    env: {
      ...process.env,
      NO_COLOR: '1',
      COLUMNS: '140',
      ZEALOUS_LYNX_INTERACTIVE: 'false',
      // Every tab has a window of its own, which takes the browser about a second to open.
      ZEALOUS_LYNX_TABS: '1',
      // Loads every page again in every view, for those tests alone that are about it.
      ZEALOUS_LYNX_PROVE: 'false',
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

/**
 * Runs the built program inside this process, which spares the start of another; for calls that are soon done. One at a
 * time: it works in the folder and the environment of the process.
 */
export async function runHere(
  values: readonly string[],
  { cwd, env = {} }: Call,
): Promise<Outcome> {
  const { runProgram } = await import('../../dist/src/cli/run-program.js');
  const before = { cwd: process.cwd(), env: { ...process.env } };
  const [stdout, stderr] = [new PassThrough(), new PassThrough()];
  Object.assign(process.env, { NO_COLOR: '1', COLUMNS: '140', ...env });
  process.chdir(cwd);
  try {
    const status = await runProgram(values, { stdout, stderr });
    return { status, stdout: textIn(stdout), stderr: textIn(stderr) };
  } finally {
    process.chdir(before.cwd);
    for (const name of Object.keys(process.env))
      if (!(name in before.env)) delete process.env[name];
    Object.assign(process.env, before.env);
  }
}

/** What was written into a stream so far. */
function textIn(stream: PassThrough): string {
  return String((stream.read() as Buffer | null) ?? '');
}
