/**
 * The family of errors this tool raises on purpose. Each carries a stable `code` for programs, one
 * line for people (`message`), what they can do about it (`hint`), and the exit status it ends in:
 * 2 when the call or a setting is wrong, 3 when the work itself failed, 130 when it was stopped.
 */
export abstract class LynxError extends Error {
  abstract readonly code: string;
  abstract readonly exitStatus: 2 | 3 | 130;
  readonly hint: string | undefined;

  constructor(message: string, options: { hint?: string; cause?: unknown } = {}) {
    super(message, options.cause === undefined ? {} : { cause: options.cause });
    this.name = new.target.name;
    this.hint = options.hint;
  }
}

/** A command, option or argument that cannot be right. */
export class UsageError extends LynxError {
  readonly code = 'USAGE';
  readonly exitStatus = 2;
}

/** A value in the flags, the environment or the config file that is not allowed. */
export class SettingError extends LynxError {
  readonly code = 'SETTING';
  readonly exitStatus = 2;
}

/** Something named by the caller (a label, a folder, a page) that does not exist. */
export class NotFoundError extends LynxError {
  readonly code = 'NOT_FOUND';
  readonly exitStatus = 2;
}

/** Two sessions that were not measured under the same conditions. */
export class ConditionsDifferError extends LynxError {
  readonly code = 'CONDITIONS_DIFFER';
  readonly exitStatus = 2;
}

/** A workspace that cannot be opened, or that a newer version wrote. */
export class WorkspaceError extends LynxError {
  readonly code = 'WORKSPACE';
  readonly exitStatus = 3;
}

/** Something that another program is at work on. */
export class BusyError extends LynxError {
  readonly code = 'BUSY';
  readonly exitStatus = 3;
}

/** A browser that is missing, or that did not start. */
export class BrowserError extends LynxError {
  readonly code = 'BROWSER';
  readonly exitStatus = 3;
}

/** A page that could not be loaded when the whole job depends on it. */
export class PageError extends LynxError {
  readonly code = 'PAGE';
  readonly exitStatus = 3;
}

/** A file that must not be overwritten, or a folder that cannot be written to. */
export class OutputError extends LynxError {
  readonly code = 'OUTPUT';
  readonly exitStatus = 3;
}

/** The person stopped the work (Ctrl-C); what was done by then is kept. */
export class InterruptedError extends LynxError {
  readonly code = 'INTERRUPTED';
  readonly exitStatus = 130;
}

/** The message of anything that was thrown, on one line. */
export function messageOf(error: unknown): string {
  const text = error instanceof Error ? error.message : String(error);
  return text.split('\n', 1)[0]!.trim();
}
