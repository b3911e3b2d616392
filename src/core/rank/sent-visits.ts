import { isInDocument } from '../address/address.js';
import type { RequestType } from '../load/request.js';
import type { Resources } from '../survey/resource.js';
import { rowsByIndex } from '../survey/survey-tables.js';
import type { RowsByIndex } from '../survey/survey-tables.js';
import type { ToldHeader } from '../survey/image-file.js';
import type { Ledger } from '../waste/ledger.js';

/** Something that a visit was sent over the network. */
export interface SentRequest {
  readonly url: string;
  readonly type: RequestType;
  readonly mediaType: string;
  /** HTTP status; 0 without a response. */
  readonly status: number;
  readonly contentHash: string | null;
  readonly headers: Readonly<Partial<Record<ToldHeader, string>>>;
  /** Bytes of the body, content encoding undone; 0 where they are not known. */
  readonly bodyBytes: number;
  /** Bytes on the wire, all times together. */
  readonly bytes: number;
  /** How often the visit asked for it. */
  readonly times: number;
  /** Sent by a host that the site's owner cannot change. */
  readonly thirdParty: boolean;
  /** Its place in the list of image files; −1 for anything else, and for images that did not come. */
  readonly file: number;
}

/** Everything that the visits of a survey were sent over the network, images and all else. */
export class SentVisits {
  readonly #ledger: Ledger;
  readonly #resources: Resources;
  readonly #images: RowsByIndex;
  readonly #ofAnswer: readonly SentRequest[];
  readonly #ofResource: readonly SentRequest[];
  /** What was asked for already, by visit. */
  readonly #known: (readonly SentRequest[])[] = [];

  constructor(ledger: Ledger, resources: Resources) {
    this.#ledger = ledger;
    this.#resources = resources;
    const { responses, files, visits } = ledger.facts;
    const { isForeign } = ledger.inputs;
    this.#images = rowsByIndex(responses.columns.visit, visits.length);
    const places = new Map(files.map(({ contentHash }, at) => [contentHash, at]));
    this.#ofAnswer = responses.answers.map((answer) => {
      const { url, status, contentHash, headers, declaredType, transferBytes, sent = 1 } = answer;
      const file = places.get(contentHash ?? '') ?? -1;
      return {
        ...{ url, type: 'image', status, contentHash, headers, file },
        mediaType: files[file]?.mediaType ?? declaredType,
        ...{ bodyBytes: files[file]?.bytes ?? 0, bytes: transferBytes * sent, times: sent },
        thirdParty: isForeign(answer),
      };
    });
    this.#ofResource = resources.list.map((resource) => {
      const { url, type, mediaType, status, contentHash, headers, bodyBytes, times } = resource;
      const bytes = resource.transferBytes * times;
      return {
        ...{ url, type, mediaType, status, contentHash, headers, bodyBytes, bytes, times },
        ...{ thirdParty: isForeign(resource), file: -1 },
      };
    });
  }

  /** The survey that it is of. */
  get ledger(): Ledger {
    return this.#ledger;
  }

  /** What one visit was sent, each address once. */
  of(visit: number): readonly SentRequest[] {
    return (this.#known[visit] ??= this.#sentTo(visit));
  }

  #sentTo(visit: number): SentRequest[] {
    const { answer } = this.#ledger.facts.responses.columns;
    const { rows, starts } = this.#images;
    const sent = new Map<string, SentRequest>();
    for (let at = starts[visit]!; at < starts[visit + 1]!; at++) {
      const image = this.#ofAnswer[answer[rows[at]!]!]!;
      if (!isInDocument(image.url)) sent.set(image.url, image);
    }
    // A visit may name an address both as an image and as something else.
    for (const place of this.#resources.ofVisit[visit] ?? []) {
      const resource = this.#ofResource[place]!;
      if (!sent.has(resource.url)) sent.set(resource.url, resource);
    }
    return [...sent.values()];
  }
}
