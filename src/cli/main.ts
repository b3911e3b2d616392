#!/usr/bin/env node
import { createRequire } from 'node:module';
import { keepCodeIn, requireCompiled } from '../system/compiled-code.js';
import { codeFolder } from './cache-folder.js';
import type * as Program from './run-program.js';

// A reader that has seen enough (`| head`) is not an error.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  process.exit(error.code === 'EPIPE' ? 0 : 3);
});

keepCodeIn(codeFolder());
// The build puts all of the program into one file beside this one: to compile it takes longer than most commands do.
const { runProgram } = requireCompiled(
  './program.cjs',
  createRequire(import.meta.url),
) as typeof Program;
process.exitCode = await runProgram(process.argv.slice(2), process);
