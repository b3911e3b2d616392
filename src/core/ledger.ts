import type { Allowances } from './allowance.js';
import { isInDocument } from './address.js';
import { isVector } from './image-file.js';
import type { ImageFile } from './image-file.js';
import { pixelsAt } from './need.js';
import type { PlacementNeeds } from './placement-needs.js';
import type { Policy } from './policy.js';
import { amountsOf } from './portion.js';
import type { Amounts } from './portion.js';
import { area } from './size.js';
import type { Size } from './size.js';
import { byFile } from './survey-tables.js';
import type { AnswerFacts, ByFile } from './survey-tables.js';
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
  /** What it adds to a sum. */
  readonly amounts: Amounts;
}

/** What has to be known to judge deliveries. */
export interface Judgement {
  readonly policy: Policy;
  readonly allowances: Allowances;
  readonly needs: PlacementNeeds;
  readonly isForeign: (answer: Pick<AnswerFacts, 'thirdParty' | 'url'>) => boolean;
  readonly weights: Weights;
}

/** Every file in every visit: what all rankings are sums of. */
export interface Ledger {
  readonly deliveries: readonly Delivery[];
  /** The deliveries of each file are those from `starts[file]` to before `starts[file + 1]`. */
  readonly starts: Int32Array;
  readonly placements: ByFile;
  readonly answers: ByFile;
}

/** Judges every file of a survey in every visit: its need there, and the split of what was sent. */
export function openLedger(facts: SurveyFacts, judgement: Judgement): Ledger {
  const { files } = facts;
  const placements = byFile(facts.placements.columns.file, files.length);
  const answers = byFile(facts.responses.columns.file, files.length);
  const encoded = new Map(facts.encoded.map((result) => [result.contentHash, result]));
  const visitWeights = facts.visits.map((visit) =>
    visit.measured ? judgement.weights.of(visit) : 0,
  );
  const deliveries: Delivery[] = [];
  const starts = new Int32Array(files.length + 1);
  files.forEach((file, at) => {
    const judge = new FileJudge(file, encoded.get(file.contentHash), facts, judgement);
    let place = placements.starts[at]!;
    let answer = answers.starts[at]!;
    const [lastPlace, lastAnswer] = [placements.starts[at + 1]!, answers.starts[at + 1]!];
    const placedIn = facts.placements.columns.visit;
    const answeredIn = facts.responses.columns.visit;
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
      const { deciding, placed } = judge;
      const judged = judge.end();
      const weight = visitWeights[visit]!;
      deliveries.push({ file: at, visit, deciding, placed, judged, weight });
    }
    starts[at + 1] = deliveries.length;
  });
  return { deliveries, starts, placements, answers };
}

/** Judges one file, one visit after the other. */
class FileJudge {
  readonly #file: ImageFile;
  readonly #encoded: Encoded | undefined;
  readonly #facts: SurveyFacts;
  readonly #judgement: Judgement;
  readonly #known = new Map<number, Judged[]>();
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
  ) {
    this.#file = file;
    this.#encoded = encoded;
    this.#facts = facts;
    this.#judgement = judgement;
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

  /** What all of the visit's placements and answers come to. */
  end(): Judged {
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
    const alike = this.#known.get(kind) ?? [];
    const known = alike.find(({ factor }) => factor === this.#factor);
    if (known) return known;
    const judged = this.#judge(times, thirdParty, compressed);
    this.#known.set(kind, [...alike, judged]);
    return judged;
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
    const sentBytes = bytes * times;
    return { factor, need, waste, sentBytes, thirdParty, amounts: amountsOf(waste, sentBytes) };
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
  return Math.min(file.bytes, encoded.steps.best);
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
