import { isInDocument } from '../address/address.js';
import type { Allowances } from '../policy/allowance.js';
import { pixelsAt } from '../policy/need.js';
import type { Policy } from '../policy/policy.js';
import type { ImageFile } from '../survey/image-file.js';
import type { Encoded } from '../survey/encoded.js';
import type { ResponseFacts } from '../survey/survey-tables.js';
import type { SurveyFacts } from '../survey/survey.js';
import type { PlacementNeeds } from './placement-needs.js';
import { isCompressed, sentOnce, stepsFor } from './verdict.js';
import type { Verdict, VerdictBook } from './verdict.js';
import type { VisitWeights } from './visit-weights.js';
import { splitWaste } from './waste.js';

/** The inputs for judging deliveries. */
export interface JudgeInputs {
  readonly policy: Policy;
  readonly allowances: Allowances;
  readonly needs: PlacementNeeds;
  readonly isForeign: (answer: Pick<ResponseFacts, 'thirdParty' | 'url'>) => boolean;
  readonly weights: VisitWeights;
}

/** Judges one file, one visit after the other. */
export class FileJudge {
  readonly #file: ImageFile;
  readonly #encoded: Encoded | undefined;
  readonly #facts: SurveyFacts;
  readonly #inputs: JudgeInputs;
  readonly #book: VerdictBook;
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
    inputs: JudgeInputs,
    book: VerdictBook,
  ) {
    this.#file = file;
    this.#encoded = encoded;
    this.#facts = facts;
    this.#inputs = inputs;
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
    const { factors, exempt } = this.#inputs.needs;
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
    if (!isInDocument(answer.url)) this.#times += answer.sent ?? 1;
    this.#foreign &&= this.#inputs.isForeign(answer);
    this.#compressed &&= isCompressed(answer);
  }

  /** The totals of the visit's placements and responses, by its index among the verdicts. */
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

  #judge(times: number, thirdParty: boolean, compressed: boolean): Verdict {
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
