#!/usr/bin/env node
import { runProgram } from './run-program.js';

// A reader that has seen enough (`| head`) is not an error.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  process.exit(error.code === 'EPIPE' ? 0 : 3);
});

process.exitCode = await runProgram(process.argv.slice(2), process);
