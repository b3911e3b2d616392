/** How far a piece of work is. Tasks report it and print nothing. */
export interface Progress {
  /** What is being counted: pages, images, files, loads. */
  readonly stage: 'pages' | 'images' | 'files' | 'bodies' | 'loads' | 'pictures';
  readonly done: number;
  /** As far as it is known by now; it may grow. */
  readonly total: number;
  /** What is being worked on. */
  readonly doing: string;
}

/** Something that happened, with its details. */
export type Trace = (message: string, details: Readonly<Record<string, unknown>>) => void;

/** What every task can be given. */
export interface TaskOptions {
  readonly onProgress?: (progress: Progress) => void;
  /** Is told of decisions and of trouble that is dealt with, for whoever looks for a cause. */
  readonly onTrace?: Trace;
  /** Stops the work; what is done by then is kept. */
  readonly signal?: AbortSignal;
}

/** For whoever does not want to know. */
export const noTrace: Trace = () => {};
export const noProgress = (): void => {};
