// Bytes that the images of a survey would cost an average visit when each slot family is offered in its planned
// widths, beside the same number of widths from a fixed ladder and beside one width for all. It takes no times.
//
//   node bench/widths.mjs <workspace> [survey]
import {
  bytesWith,
  defaultPolicy,
  deliveriesOf,
  demandsOf,
  groupRows,
  planWidths,
  rank,
  Workspace,
} from '../dist/src/index.js';

const ladder = [320, 640, 960, 1280, 1920];
const workspace = Workspace.openExisting(process.argv[2] ?? '.zealous-lynx');
const ranking = await rank(workspace, process.argv[3], defaultPolicy);
const sums = { one: 0, ladder: 0, planned: 0, exact: 0 };
let files = 0;
for (const row of groupRows(ranking, deliveriesOf(ranking), 'family')) {
  const demands = demandsOf(row.rows, ranking.ledger);
  if (demands.length === 0) continue;
  const plan = planWidths(demands, defaultPolicy.widths, 0.01);
  const widest = Math.max(...demands.map(({ width }) => width));
  sums.one += bytesWith(demands, [widest]);
  // The ladder goes as far as it must for the largest need.
  const steps = ladder.filter((width) => width < widest);
  sums.ladder += bytesWith(demands, [...steps, ladder.find((width) => width >= widest) ?? widest]);
  sums.planned += plan.bytes;
  sums.exact += demands.reduce((sum, { width, bytesAt }) => sum + bytesAt(width), 0);
  files += plan.widths.length;
}
workspace.close();
const kilobytes = (bytes) => `${(bytes / 1000).toFixed(1)} kB`;
console.log('| offered | bytes in an average visit |');
console.log('| --- | --- |');
console.log(`| one width, the largest need | ${kilobytes(sums.one)} |`);
console.log(`| the ladder ${ladder.join(', ')} | ${kilobytes(sums.ladder)} |`);
console.log(`| the planned widths, ${files} in all | ${kilobytes(sums.planned)} |`);
console.log(`| every need its own width | ${kilobytes(sums.exact)} |`);
