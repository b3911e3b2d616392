import { createHash } from 'node:crypto';
import { readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import Module from 'node:module';
import { basename, dirname, join } from 'node:path';
import { Script } from 'node:vm';
import { makeFolder } from './make-folder.js';

/** Shorter files are compiled faster than what was kept of them is read. */
const leastLength = 100_000;
/** Bytes of the digest at the head of a file. */
const digestLength = 20;

interface Compiled {
  readonly script: Script;
  readonly digest: (code: Buffer) => Buffer;
  readonly file: string;
}

/** How modules are compiled; not part of the runtime's documented interface, but what all that hook into `require` replace. */
interface ModulePrototype {
  _compile: (this: Module, source: string, path: string) => unknown;
}

let folder: string | undefined;

/**
 * Names the folder in which compiled code is kept from one run to the next. Until then, none is kept.
 *
 * Whoever can write code into it has this program run it: a folder that others may write to is not used.
 */
export function keepCodeIn(path: string): void {
  folder = path;
}

/**
 * Requires a CommonJS module. What V8 has made of its large files the last time is taken from the folder of compiled code, and
 * put there on the way out where it is missing, damaged, or of another version (`vm.Script`, `cachedData`). Code of this kind
 * has no `import()`.
 */
export function requireCompiled(name: string, require: NodeJS.Require): unknown {
  const kept = folder;
  if (kept === undefined) return require(name);
  const prototype = Module.prototype as unknown as ModulePrototype;
  const usual = prototype._compile;
  prototype._compile = function (source, path) {
    return source.length < leastLength
      ? usual.call(this, source, path)
      : run(this, compiled(source, path, kept), path);
  };
  try {
    return require(name);
  } finally {
    prototype._compile = usual;
  }
}

function run(module: Module, script: Script, path: string): unknown {
  const start = script.runInThisContext() as (this: unknown, ...given: unknown[]) => unknown;
  const require = Module.createRequire(path);
  return start.call(module.exports, module.exports, require, module, path, dirname(path));
}

function compiled(source: string, path: string, kept: string): Script {
  const digest = (code: Buffer) =>
    // Against damage and mistakes, not against people.
    createHash('sha1').update(process.version).update(path).update(source).update(code).digest();
  const id = createHash('sha1').update(path).digest('hex').slice(0, 16);
  const file = join(kept, `${basename(path)}-${id}.code`);
  const cachedData = codeIn(file, digest);
  const script = new Script(Module.wrap(source), {
    filename: path,
    ...(cachedData && { cachedData }),
  });
  // At the end it has compiled what is only compiled when it is first called, too.
  if (!cachedData || script.cachedDataRejected)
    process.once('exit', () => keep({ script, digest, file }));
  return script;
}

function codeIn(file: string, digest: Compiled['digest']): Buffer | undefined {
  try {
    if (!isOwn(dirname(file))) return undefined;
    const content = readFileSync(file);
    const code = content.subarray(digestLength);
    return digest(code).equals(content.subarray(0, digestLength)) ? code : undefined;
  } catch {
    return undefined;
  }
}

function keep({ script, digest, file }: Compiled): void {
  try {
    makeFolder(dirname(file), 0o700);
    if (!isOwn(dirname(file))) return;
    const code = script.createCachedData();
    const draft = `${file}.${process.pid}`;
    writeFileSync(draft, Buffer.concat([digest(code), code]), { mode: 0o600 });
    renameSync(draft, file);
  } catch {
    // It is compiled anew the next time.
  }
}

function isOwn(path: string): boolean {
  if (!process.getuid) return true;
  const { uid, mode } = statSync(path);
  return uid === process.getuid() && (mode & 0o022) === 0;
}
