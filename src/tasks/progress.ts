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

/** What every task can be given. */
export interface TaskOptions {
  readonly onProgress?: (progress: Progress) => void;
  /** Stops the work; what is done by then is kept. */
  readonly signal?: AbortSignal;
}

/** For whoever does not want to know. */
export const noProgress = (): void => {};
