import { spawn } from 'node:child_process';
import { jsonText } from '../../../output/json/json-text.js';
import { messageDocument, patience } from './message.js';
import type { AlarmMessage } from './message.js';

/**
 * Runs a program, without a shell, and gives it a message as JSON on its standard input.
 *
 * @throws Error in plain words when it cannot be run, or does not end with status 0.
 */
export async function runCommand(words: readonly string[], message: AlarmMessage): Promise<void> {
  const [program = '', ...values] = words;
  await new Promise<void>((resolve, reject) => {
    const child = spawn(program, values, {
      stdio: ['pipe', 'ignore', 'ignore'],
      timeout: patience,
      killSignal: 'SIGKILL',
    });
    child.on('error', (error) => reject(error));
    child.on('close', (status, signal) => {
      if (status === 0) resolve();
      else
        reject(
          new Error(
            signal ? `it did not end in ${patience / 1000} s` : `it ended with status ${status}`,
          ),
        );
    });
    // Whoever does not want to read it may leave it.
    child.stdin.on('error', () => {});
    child.stdin.end(jsonText(messageDocument(message)));
  });
}
