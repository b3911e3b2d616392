/** What is asked of the thread that talks to servers. */
export type Request =
  | { readonly kind: 'open'; readonly address: string }
  | ({ readonly connection: number } & (
      | {
          readonly kind: 'query';
          readonly text: string;
          readonly values: readonly unknown[];
          /** Whether rows are lists of columns. */
          readonly raw: boolean;
          /** The number that the server keeps its plan under; left out, it keeps none. */
          readonly plan?: number;
        }
      | { readonly kind: 'exec'; readonly text: string }
      | { readonly kind: 'close' }
    ));

/** Rows that were found. */
export interface Found {
  readonly rows: readonly unknown[];
  /** Columns that hold bytes. */
  readonly bytes: readonly (string | number)[];
}

/** What came of it. */
export type Reply = Found | { readonly connection: number } | { readonly failure: Failure };

/** An error in the words of the server or of the system. */
export interface Failure {
  readonly message: string;
  /** SQLSTATE, or the code of a system error. */
  readonly code: string;
  /** Whether the connection is gone, so that nobody knows what was done of the request. */
  readonly isLost: boolean;
}
