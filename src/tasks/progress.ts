/** Progress of a piece of work. Tasks report it and print nothing. */
export interface Progress {
  /** What is being counted: pages, images, files, loads. */
  readonly stage:
    | 'pages'
    | 'first'
    | 'images'
    | 'files'
    | 'bodies'
    | 'masters'
    | 'recordings'
    | 'loads'
    | 'pictures'
    | 'looks'
    | 'proof'
    | 'figures'
    | 'sums'
    | 'asking';
  readonly done: number;
  /** As far as known by now; it may grow. */
  readonly total: number;
  /** What is being worked on. */
  readonly doing: string;
  /** Seconds until all is done, where the task knows better than the rate so far. */
  readonly left?: number | undefined;
  /** The images that waste the most so far, the worst first; absent where none are known. */
  readonly worst?: readonly WastefulImage[];
}

/** A file that is larger than any slot needs that was seen so far. */
export interface WastefulImage {
  readonly url: string;
  /** Of the file as it is. */
  readonly bytes: number;
  readonly needed: number;
  /** Whether what is needed was estimated from one encode. */
  readonly isEstimate: boolean;
}

/** Something that happened, with its details. */
export type Trace = (message: string, details: Readonly<Record<string, unknown>>) => void;

/** The options of every task. */
export interface TaskOptions {
  readonly onProgress?: (progress: Progress) => void;
  /** Called with decisions and with problems that were dealt with, for debugging. */
  readonly onTrace?: Trace;
  /** Called with what a person should know, with a key for what is told once for all. */
  readonly onNotice?: (words: string, key: string) => void;
  /** Stops the work; everything finished by then is kept. */
  readonly signal?: AbortSignal;
}

/** For callers that do not want to know. */
export const noTrace: Trace = () => {};
export const noProgress = (): void => {};
