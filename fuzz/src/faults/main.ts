// npm run faults -- COUNT [KIND] [FIRST]: tries a number of faults of each kind on its own server, and prints those
// that go wrong.
import { FaultStage } from './fault-stage.js';
import { FAULTS } from './faults.js';

const [count = '20', only, first = '1'] = process.argv.slice(2);
const kinds = Object.keys(FAULTS) as (keyof typeof FAULTS)[];
if (only !== undefined && !kinds.some((kind) => kind === only)) {
  console.error(`Found ${only}; expected one of ${kinds.join(', ')}.`);
  process.exit(2);
}
let wrong = 0;
for (const kind of kinds.filter((one) => only === undefined || one === only)) {
  const stage = new FaultStage();
  await stage.start();
  let bad = 0;
  let slowest = { seed: 0, seconds: 0 };
  for (let seed = Number(first); seed < Number(first) + Number(count); seed++) {
    if (!stage.isAlive()) await stage.start();
    const start = performance.now();
    const problem = await FAULTS[kind](seed, stage);
    const seconds = (performance.now() - start) / 1e3;
    if (seconds > slowest.seconds) slowest = { seed, seconds };
    if (problem === null) continue;
    bad++;
    console.log(`${kind} ${seed}: ${problem}`);
  }
  await stage.end();
  wrong += bad;
  console.log(
    `${kind}: ${count} tried, ${bad} wrong; the slowest, ${slowest.seed}, took ${slowest.seconds.toFixed(2)} s.`,
  );
}
process.exit(wrong === 0 ? 0 : 1);
