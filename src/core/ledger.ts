import type { Allowances } from './allowance.js';
import { isInDocument } from './address.js';
import { isVector } from './image-file.js';
import type { ImageFile } from './image-file.js';
import { pixelsAt } from './need.js';
import type { PlacementNeeds } from './placement-needs.js';
import type { Policy } from './policy.js';
import { addAmounts, PortionSum } from './portion.js';
import type { Portion } from './portion.js';
import { area } from './size.js';
import type { Size } from './size.js';
import { byPlace } from './survey-tables.js';
import type { AnswerFacts, ByPlace } from './survey-tables.js';
import type { Encoded, SurveyFacts } from './survey.js';
import { splitWaste, stepsAt } from './waste.js';
import type { Waste, WasteSteps } from './waste.js';
import type { Weights } from './weight.js';

/** What one image file was to one visit: what was sent, and what would have done. */
export interface Delivery {
  /** Place in the list of files, and in that of visits. */
  readonly file: number;
  readonly visit: number;
  /** Row of the placement that decides the need; −1 where none shows the file. */
  readonly deciding: number;
  /** Row of the first placement of the file on that visit; −1 where there is none. */
  readonly placed: number;
  readonly judged: Judged;
  /** How much its visit counts. */
  readonly weight: number;
}

/** What deliveries of one file have in common that come to the same. */
export interface Judged {
  /** Part of the file's width that is enough; 0 where nothing is shown. */
  readonly factor: number;
  /** The need; `null` for vectors, and where nothing is shown. */
  readonly need: Size | null;
  /** `null` where it cannot be judged: a file that cannot be read, or that no element of the page has. */
  readonly waste: Waste | null;
  readonly sentBytes: number;
  readonly thirdParty: boolean;
}

/** Rows of a ledger. */
export type DeliveryRows = Int32Array;

/** What has to be known to judge deliveries. */
export interface Judgement {
  readonly policy: Policy;
  readonly allowances: Allowances;
  readonly needs: PlacementNeeds;
  readonly isForeign: (answer: Pick<AnswerFacts, 'thirdParty' | 'url'>) => boolean;
  readonly weights: Weights;
}

/**
 * Every file in every visit: what all rankings are sums of. A row is one delivery; there are as many as placements, so
 * they stand in columns. The rows of one file come one after the other, in the order of the visits.
 */
export class Ledger {
  readonly file: Int32Array;
  readonly visit: Int32Array;
  readonly deciding: Int32Array;
  readonly placed: Int32Array;
  /** Place in the list of what is judged. */
  readonly judgement: Int32Array;
  /** The rows of each file are those from `starts[file]` to before `starts[file + 1]`. */
  readonly starts: Int32Array;
  readonly judged: readonly Judged[];
  /** What each of `judged` adds to a sum, one after the other, as `addAmounts` has it. */
  readonly amounts: readonly number[];
  /** How much each visit counts. */
  readonly weights: Float64Array;
  /** The encode of each file that has one. */
  readonly encoded: readonly (Encoded | undefined)[];
  readonly placements: ByPlace;
  readonly answers: ByPlace;

  constructor(columns: Omit<Ledger, 'length' | 'rows' | 'rowsOf' | 'at' | 'wasteByFile' | 'sum'>) {
    this.file = columns.file;
    this.visit = columns.visit;
    this.deciding = columns.deciding;
    this.placed = columns.placed;
    this.judgement = columns.judgement;
    this.starts = columns.starts;
    this.judged = columns.judged;
    this.amounts = columns.amounts;
    this.weights = columns.weights;
    this.encoded = columns.encoded;
    this.placements = columns.placements;
    this.answers = columns.answers;
  }

  get length(): number {
    return this.file.length;
  }

  /** All rows. */
  get rows(): DeliveryRows {
    return this.#span(0, this.length);
  }

  /** The rows of one file. */
  rowsOf(file: number): DeliveryRows {
    return this.#span(this.starts[file]!, this.starts[file + 1]!);
  }

  #span(from: number, to: number): DeliveryRows {
    const rows = new Int32Array(to - from);
    for (let at = 0; at < rows.length; at++) rows[at] = from + at;
    return rows;
  }

  at(row: number): Delivery {
    const visit = this.visit[row]!;
    return {
      file: this.file[row]!,
      visit,
      deciding: this.deciding[row]!,
      placed: this.placed[row]!,
      judged: this.judged[this.judgement[row]!]!,
      weight: this.weights[visit]!,
    };
  }

  /** What an average visit wastes of each file, in bytes. */
  wasteByFile(): Float64Array {
    const sums = new Float64Array(this.starts.length - 1);
    const wasted = Float64Array.from(this.judged, ({ waste }) => waste?.wasteBytes ?? 0);
    for (let row = 0; row < this.length; row++)
      sums[this.file[row]!]! += wasted[this.judgement[row]!]! * this.weights[this.visit[row]!]!;
    return sums;
  }

  /** The weighted sum of some rows. */
  sum(rows: DeliveryRows): Portion {
    const sum = new PortionSum();
    for (let at = 0; at < rows.length; at++) {
      const row = rows[at]!;
      sum.add(this.amounts, this.judgement[row]!, this.weights[this.visit[row]!]!);
    }
    return sum.done();
  }
}

/** Judges every file of a survey in every visit: its need there, and the split of what was sent. */
export function openLedger(facts: SurveyFacts, judgement: Judgement): Ledger {
  const { files } = facts;
  const placements = byPlace(facts.placements.columns.file, files.length);
  const answers = byPlace(facts.responses.columns.file, files.length);
  const byHash = new Map(facts.encoded.map((result) => [result.contentHash, result]));
  const encoded = files.map(({ contentHash }) => byHash.get(contentHash));
  const weights = Float64Array.from(facts.visits, (visit) =>
    visit.measured ? judgement.weights.of(visit) : 0,
  );
  const most = placements.rows.length + answers.rows.length;
  const column = () => new Int32Array(most);
  const [file, visited, deciding] = [column(), column(), column()];
  const [placed, judgedAs] = [column(), column()];
  const starts = new Int32Array(files.length + 1);
  const book = new JudgedBook();
  const placedIn = facts.placements.columns.visit;
  const answeredIn = facts.responses.columns.visit;
  let row = 0;
  for (let at = 0; at < files.length; at++) {
    const one = files[at]!;
    const judge = new FileJudge(one, encoded[at], facts, judgement, book);
    let place = placements.starts[at]!;
    let answer = answers.starts[at]!;
    const [lastPlace, lastAnswer] = [placements.starts[at + 1]!, answers.starts[at + 1]!];
    while (place < lastPlace || answer < lastAnswer) {
      const visit = Math.min(
        place < lastPlace ? placedIn[placements.rows[place]!]! : Infinity,
        answer < lastAnswer ? answeredIn[answers.rows[answer]!]! : Infinity,
      );
      judge.begin();
      for (; place < lastPlace && placedIn[placements.rows[place]!] === visit; place++)
        judge.placement(placements.rows[place]!);
      for (; answer < lastAnswer && answeredIn[answers.rows[answer]!] === visit; answer++)
        judge.answer(answers.rows[answer]!);
      file[row] = at;
      visited[row] = visit;
      deciding[row] = judge.deciding;
      placed[row] = judge.placed;
      judgedAs[row++] = judge.end();
    }
    starts[at + 1] = row;
  }
  return new Ledger({
    file: file.subarray(0, row),
    visit: visited.subarray(0, row),
    deciding: deciding.subarray(0, row),
    placed: placed.subarray(0, row),
    judgement: judgedAs.subarray(0, row),
    starts,
    judged: book.judged,
    amounts: book.amounts,
    weights,
    encoded,
    placements,
    answers,
  });
}

/** What was judged, each that is different once for each file. */
class JudgedBook {
  readonly judged: Judged[] = [];
  readonly amounts: number[] = [];
  readonly #kinds: number[] = [];
  #first = 0;

  /** From here on it is about another file. */
  turn(): void {
    this.#first = this.judged.length;
  }

  /** The place of what was judged of the same file under the same circumstances; −1 for none. */
  find(kind: number, factor: number): number {
    for (let at = this.#first; at < this.judged.length; at++)
      if (this.#kinds[at] === kind && this.judged[at]!.factor === factor) return at;
    return -1;
  }

  add(kind: number, judged: Judged): number {
    this.#kinds.push(kind);
    addAmounts(this.amounts, judged.waste, judged.sentBytes);
    return this.judged.push(judged) - 1;
  }
}

/** Judges one file, one visit after the other. */
class FileJudge {
  readonly #file: ImageFile;
  readonly #encoded: Encoded | undefined;
  readonly #facts: SurveyFacts;
  readonly #judgement: Judgement;
  readonly #book: JudgedBook;
  #factor = 0;
  #exempt = false;
  #times = 0;
  #answers = 0;
  #foreign = true;
  #compressed = true;
  deciding = -1;
  placed = -1;

  constructor(
    file: ImageFile,
    encoded: Encoded | undefined,
    facts: SurveyFacts,
    judgement: Judgement,
    book: JudgedBook,
  ) {
    this.#file = file;
    this.#encoded = encoded;
    this.#facts = facts;
    this.#judgement = judgement;
    this.#book = book;
    book.turn();
  }

  begin(): void {
    this.#factor = 0;
    this.#exempt = false;
    this.#times = 0;
    this.#answers = 0;
    this.#foreign = true;
    this.#compressed = true;
    this.deciding = -1;
    this.placed = -1;
  }

  placement(row: number): void {
    if (this.placed < 0) this.placed = row;
    const { factors, exempt } = this.#judgement.needs;
    const factor = factors[row]!;
    if (factor === 0) return;
    if (exempt[row] === 1) this.#exempt = true;
    if (this.deciding >= 0 && factor <= this.#factor) return;
    this.deciding = row;
    this.#factor = factor;
  }

  answer(row: number): void {
    const { responses } = this.#facts;
    const answer = responses.answers[responses.columns.answer[row]!]!;
    this.#answers++;
    if (!isInDocument(answer.url)) this.#times++;
    this.#foreign &&= this.#judgement.isForeign(answer);
    this.#compressed &&= isCompressed(answer);
  }

  /** What all of the visit's placements and answers come to, by its place among what is judged. */
  end(): number {
    const times = Math.max(1, this.#times);
    const thirdParty = this.#answers > 0 && this.#foreign;
    const compressed = this.#answers > 0 && this.#compressed;
    const kind =
      (times << 5) |
      (thirdParty ? 1 : 0) |
      (compressed ? 2 : 0) |
      (this.#exempt ? 4 : 0) |
      (this.deciding >= 0 ? 8 : 0) |
      (this.placed >= 0 ? 16 : 0);
    const known = this.#book.find(kind, this.#factor);
    if (known >= 0) return known;
    return this.#book.add(kind, this.#judge(times, thirdParty, compressed));
  }

  #judge(times: number, thirdParty: boolean, compressed: boolean): Judged {
    const file = this.#file;
    const encoded = this.#encoded;
    const factor = this.#factor;
    const shown = this.deciding >= 0;
    const problem = file.problem ?? encoded?.problem ?? null;
    const need = file.intrinsic && shown ? pixelsAt(file.intrinsic, factor) : null;
    const bytes = sentOnce(file, encoded, compressed);
    const steps = this.#exempt ? undefined : stepsFor(file, encoded, need);
    const canJudge = this.placed >= 0 && (problem === null || !shown);
    const waste = canJudge ? splitWaste(bytes, times, shown, steps) : null;
    return { factor, need, waste, sentBytes: bytes * times, thirdParty };
  }
}

/** Whether an answer was compressed on its way. */
export function isCompressed({ headers }: Pick<AnswerFacts, 'headers'>): boolean {
  return (headers['content-encoding'] ?? 'identity') !== 'identity';
}

/** Bytes of a file each time that it is sent; a text that is compressed on its way counts as what it is then. */
export function sentOnce(
  file: ImageFile,
  encoded: Encoded | undefined,
  compressed: boolean,
): number {
  if (!compressed || !isVector(file) || !encoded || encoded.problem !== null) return file.bytes;
  return Math.min(file.bytes, encoded.steps.sameFormat);
}

/** The steps from a file to what is needed of it at one need; `undefined` where there is no encode. */
export function stepsFor(
  { intrinsic }: ImageFile,
  encoded: Encoded | undefined,
  need: Size | null,
): WasteSteps | undefined {
  if (!encoded || encoded.problem !== null) return undefined;
  if (!intrinsic || !need || !encoded.need)
    return { ...encoded.steps, pixelRatio: 1, text: encoded.format === 'svg' };
  const [whole, most, here] = [area(intrinsic), area(encoded.need), area(need)];
  return stepsAt(encoded.steps, whole, most, Math.min(most, here));
}
