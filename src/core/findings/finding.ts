/** Who has to act: the person in charge of pictures, templates or the server, or another site's owner. */
export const doers = ['content', 'markup', 'server', 'third party'] as const;
export type Doer = (typeof doers)[number];

/** The evidence of a finding: numbers, texts and lists of them, as JSON has them. */
export type FindingData = object;

/** How numbers are written in the words of a finding. */
export interface FindingFormat {
  readonly bytes: (bytes: number) => string;
  /** Milliseconds. */
  readonly time: (milliseconds: number) => string;
  /** `1 request`, `2 requests`. */
  readonly count: (number: number, one: string, many?: string) => string;
}

/** Code that can be put into a file as it stands, pages' own texts in it escaped. */
export interface FindingCode {
  readonly language: 'html' | 'css';
  readonly text: string;
}

/** What the manual says of a kind of finding besides its fix, a sentence or two each. */
export interface FindingDocs {
  readonly meaning: string;
  readonly why: string;
  readonly computed: string;
  /** When it is no fault. */
  readonly ignore: string;
}

/** All that is known of one kind of finding; a new kind is a file with one of these, and a line in a list. */
export interface FindingKind<Id extends string, Data extends FindingData> {
  readonly id: Id;
  /** The plural under which they are counted. */
  readonly title: string;
  /** Who fixes it; `null` if there is nothing to fix. */
  readonly doer: Doer | null;
  /** How it is fixed, in a sentence. */
  readonly fix: string;
  readonly docs: FindingDocs;
  /** Whether it is an item of the work list, not covered by another item there. */
  readonly isWork: boolean;
  /** Whether the markup that comes with new widths of an image fixes it as well. */
  readonly isInSnippets?: boolean;
  /** What to do about this one, where its evidence says more than `fix` does: a phrase that begins with a verb. */
  step?(data: Data): string;
  /** What to write, where the evidence tells it. */
  code?(data: Data): FindingCode;
  /** The finding in words. */
  describe(data: Data, format: FindingFormat): string;
}

/** A finding: its kind and its evidence. */
export interface Finding<Id extends string = string> {
  readonly id: Id;
  readonly data: FindingData;
}
