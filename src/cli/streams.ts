/** A stream to write to, which may be a terminal. */
export type OutputStream = NodeJS.WritableStream & {
  readonly isTTY?: boolean;
  readonly columns?: number;
};

/** Where the program writes. */
export interface Streams {
  readonly stdout: OutputStream;
  readonly stderr: OutputStream;
}
