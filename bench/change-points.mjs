// How often steps are claimed that are none, and how often steps of 15 % are found: on generated series, whose truth is known.
//
//   node bench/change-points.mjs [series]
//
// Each series has 30 measurements that scatter by 3 % (normal), one in twenty of them three times as far, as medians of
// sessions do. As many have a step of 15 %, up or down, at a random place; they are looked at whole, and when two, three and
// four measurements after the step are there. A step counts as found when it is claimed at most two places off.
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { changePoints } from '../dist/src/index.js';

const series = Number(process.argv[2] ?? 200);
const random = xoroshiro128plus(42);
const uniform = () => uniformFloat64(random);
const normal = () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform());
const scatter = 0.03;
const length = 30;

let [falseAlarms, foundWhole] = [0, 0];
const found = { 2: 0, 3: 0, 4: 0 };
for (let at = 0; at < series; at++) {
  const flat = Array.from({ length }, () => 1000 * (1 + noise()));
  if (changePoints(flat).length > 0) falseAlarms++;
  const step = 12 + Math.floor(uniform() * 12);
  const factor = uniform() < 0.5 ? 1.15 : 1 / 1.15;
  const stepped = Array.from(
    { length },
    (_, place) => 1000 * (place < step ? 1 : factor) * (1 + noise()),
  );
  const isNear = ({ at: place }) => Math.abs(place - step) <= 2;
  for (const after of Object.keys(found))
    if (changePoints(stepped.slice(0, step + Number(after))).some(isNear)) found[after]++;
  if (changePoints(stepped).some(isNear)) foundWhole++;
}

function noise() {
  return normal() * scatter * (uniform() < 0.05 ? 3 : 1);
}

const share = (number) => `${((number / series) * 100).toFixed(1)} %`;
console.log(`${series} series of ${length} without a step: ${share(falseAlarms)} false alarms`);
console.log(`${series} series with a step of 15 %:`);
for (const [after, times] of Object.entries(found))
  console.log(`  found when ${after} measurements after it are there: ${share(times)}`);
console.log(`  found in the whole series, at most two places off: ${share(foundWhole)}`);
