/** Something to be done on a connection. */
export type Asked =
  | {
      readonly kind: 'query';
      readonly text: string;
      readonly values: readonly unknown[];
      /** Whether rows are lists of columns. */
      readonly raw: boolean;
      /** The number that the server keeps its plan under. */
      readonly plan: number;
    }
  | { readonly kind: 'exec'; readonly text: string };

/** What is asked of the thread that talks to servers. */
export type Request =
  | { readonly kind: 'open'; readonly address: string }
  | ({ readonly connection: number } & (
      | {
          readonly kind: 'do';
          /** One after the other; in a transaction, what follows one that fails fails as well. */
          readonly all: readonly Asked[];
        }
      | { readonly kind: 'close' }
    ));

/** Rows that were found, by the last of what was done. */
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
  /** The number of the transaction that was under way, by which a server says later what became of it. */
  readonly transaction?: string | undefined;
}
