import { fork } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import pLimit from 'p-limit';
import type { VectorWork } from './vector-work.js';

/** Milliseconds that one piece of work may take. */
const patience = 10_000;

const worker = fileURLToPath(new URL('../vector/vector-worker.js', import.meta.url));

/** One after the other: so it is known which image a process was ended for. */
const inTurn = pLimit(1);
let child: ChildProcess | undefined;

/**
 * Works on a vector image in a process of its own, which is ended when it takes too long or too much memory.
 *
 * @returns `null` where the image cannot be worked on, or had to be given up
 */
export function inVectorProcess(name: keyof VectorWork, body: Buffer): Promise<Buffer | null> {
  return inTurn(() => workOn(name, body));
}

function workOn(name: keyof VectorWork, body: Buffer): Promise<Buffer | null> {
  const own = (child ??= start());
  // It keeps this program alive only while it has something to do.
  own.ref();
  own.channel?.ref();
  return new Promise((resolve) => {
    const end = (result: Uint8Array | null) => {
      clearTimeout(timer);
      own.off('message', end);
      own.off('exit', lost);
      own.unref();
      own.channel?.unref();
      resolve(result && Buffer.from(result.buffer, result.byteOffset, result.byteLength));
    };
    const lost = () => {
      if (child === own) child = undefined;
      end(null);
    };
    const timer = setTimeout(() => own.kill('SIGKILL'), patience);
    own.on('message', end);
    own.on('exit', lost);
    own.send({ name, body }, (error) => {
      if (error) own.kill('SIGKILL');
    });
  });
}

function start(): ChildProcess {
  const own = fork(worker, {
    serialization: 'advanced',
    execArgv: ['--max-old-space-size=512'],
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  own.on('error', () => {});
  return own;
}
