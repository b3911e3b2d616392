import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/**
 * Runs a Node program to its end.
 *
 * @param expected its exit status; any other is an error
 * @returns seconds from its start to its end, and its peak memory, which Node tells on its way out
 */
export async function runToEnd(values, expected = 0) {
  const told = join(tmpdir(), `lynx-bench-${process.pid}.txt`);
  const hook = `data:text/javascript,import{writeFileSync}from'node:fs';process.on('exit',()=>writeFileSync(${JSON.stringify(told)},String(process.resourceUsage().maxRSS)))`;
  const began = performance.now();
  const child = spawn(process.execPath, ['--import', hook, ...values], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const [status] = await once(child, 'close');
  const seconds = (performance.now() - began) / 1000;
  if (status !== expected) throw new Error(`exit status ${status}`);
  const megabytes = Number(readFileSync(told, 'utf8')) / 1000;
  rmSync(told);
  return { seconds, megabytes };
}
