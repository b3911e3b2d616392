/** What went wrong below the program, and what to do about it. */
export interface SystemFailure {
  readonly words: string;
  readonly hint: string;
}

const full: SystemFailure = {
  words: 'the disk is full',
  hint: 'make room and run it again: what is done is kept',
};
const closed: SystemFailure = {
  words: 'a file or folder may not be written to',
  hint: 'check its rights, or name another place with --workspace or --out',
};
const damaged: SystemFailure = {
  words: 'the workspace is damaged',
  hint: 'zealous-lynx surveys check tells what of it is sound; other surveys can still be used',
};

/** By the codes of the system (POSIX) and of the database (SQLite, result codes). */
const byCode: Readonly<Record<string, SystemFailure>> = {
  ENOSPC: full,
  EDQUOT: full,
  SQLITE_FULL: full,
  SQLITE_IOERR: { words: 'the disk failed', hint: 'check it, and run it again' },
  EIO: { words: 'the disk failed', hint: 'check it, and run it again' },
  EACCES: closed,
  EPERM: closed,
  EROFS: closed,
  SQLITE_READONLY: closed,
  SQLITE_CANTOPEN: closed,
  SQLITE_BUSY: {
    words: 'another program is writing to the workspace',
    hint: 'wait for its end, and run it again',
  },
  SQLITE_LOCKED: {
    words: 'another program is writing to the workspace',
    hint: 'wait for its end, and run it again',
  },
  SQLITE_CORRUPT: damaged,
  SQLITE_NOTADB: damaged,
  EMFILE: {
    words: 'too many files are open',
    hint: 'allow more of them (ulimit -n), or use fewer --tabs',
  },
  ENFILE: { words: 'too many files are open on this machine', hint: 'close other programs' },
  ENOMEM: { words: 'there is no memory left', hint: 'close other programs, or use fewer --tabs' },
};

/** Whether an error comes from the system under the program, which it cannot mend. */
export function systemFailure(error: unknown): SystemFailure | undefined {
  for (let at = error; at instanceof Error; at = at.cause) {
    const { code = '' } = at as NodeJS.ErrnoException;
    // Extended codes begin with the plain ones.
    const plain = /^SQLITE_[A-Z]+/.exec(code)?.[0] ?? code;
    const known = byCode[plain];
    if (known) return known;
    // Every document from outside is read with errors of its own: this was one of ours.
    if (at instanceof SyntaxError && /JSON/.test(at.message)) return damaged;
  }
  return undefined;
}
