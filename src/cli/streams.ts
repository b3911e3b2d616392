/** A stream to write to, which may be a terminal. */
export type OutputStream = NodeJS.WritableStream & {
  readonly isTTY?: boolean;
  readonly columns?: number;
};

/** The columns of a terminal, or those that `COLUMNS` names; `undefined` where nobody says. */
export function columnsOf(stream: OutputStream): number | undefined {
  const named = Number(process.env['COLUMNS']);
  return stream.columns || (named > 0 ? named : undefined);
}

/** Where the program writes. */
export interface Streams {
  readonly stdout: OutputStream;
  readonly stderr: OutputStream;
}
