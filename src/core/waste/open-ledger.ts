import { rowsByIndex } from '../survey/survey-tables.js';
import type { SurveyFacts } from '../survey/survey.js';
import { FileJudge } from './file-judge.js';
import type { JudgeInputs } from './file-judge.js';
import { Ledger } from './ledger.js';
import { VerdictBook } from './verdict.js';

/** Judges every file of a survey in every visit: its need there, and the split of what was sent. */
export function openLedger(facts: SurveyFacts, inputs: JudgeInputs): Ledger {
  const { files } = facts;
  const placements = rowsByIndex(facts.placements.columns.file, files.length);
  const answers = rowsByIndex(facts.responses.columns.file, files.length);
  const byHash = new Map(facts.encoded.map((result) => [result.contentHash, result]));
  const encoded = files.map(({ contentHash }) => byHash.get(contentHash));
  const weights = Float64Array.from(facts.visits, (visit) =>
    visit.measured ? inputs.weights.of(visit) : 0,
  );
  const most = placements.rows.length + answers.rows.length;
  const column = () => new Int32Array(most);
  const [file, visited, deciding] = [column(), column(), column()];
  const [placed, judgedAs] = [column(), column()];
  const starts = new Int32Array(files.length + 1);
  const book = new VerdictBook();
  const placedIn = facts.placements.columns.visit;
  const answeredIn = facts.responses.columns.visit;
  let row = 0;
  for (let at = 0; at < files.length; at++) {
    let place = placements.starts[at]!;
    let answer = answers.starts[at]!;
    const [lastPlace, lastAnswer] = [placements.starts[at + 1]!, answers.starts[at + 1]!];
    starts[at + 1] = row;
    // Most files of a large survey are not in a part of it.
    if (place === lastPlace && answer === lastAnswer) continue;
    const judge = new FileJudge(files[at]!, encoded[at], facts, inputs, book);
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
    facts,
    inputs,
    file: file.subarray(0, row),
    visit: visited.subarray(0, row),
    deciding: deciding.subarray(0, row),
    placed: placed.subarray(0, row),
    verdictIndex: judgedAs.subarray(0, row),
    starts,
    verdicts: book.verdicts,
    amounts: book.amounts,
    weights,
    encoded,
    placements,
    answers,
  });
}
