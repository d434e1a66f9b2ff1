// npm run fuzz -- KIND COUNT [FIRST]: tries a number of inputs of a kind, and prints those that go wrong.
import { KINDS } from './kinds.js';

const [kind, count = '100', first = '1'] = process.argv.slice(2);
const attempt = KINDS[kind as keyof typeof KINDS];
if (attempt === undefined) {
  console.error(`Found ${kind ?? 'nothing'}; expected one of ${Object.keys(KINDS).join(', ')}.`);
  process.exit(2);
}
let wrong = 0;
let slowest = { seed: 0, seconds: 0 };
for (let seed = Number(first); seed < Number(first) + Number(count); seed++) {
  const start = performance.now();
  const problem = await attempt(seed);
  const seconds = (performance.now() - start) / 1e3;
  if (seconds > slowest.seconds) slowest = { seed, seconds };
  if (problem === null) continue;
  wrong++;
  console.log(`${kind} ${seed}: ${problem}`);
}
console.log(
  `${count} tried, ${wrong} wrong; the slowest, ${slowest.seed}, took ${slowest.seconds.toFixed(2)} s.`,
);
process.exit(wrong === 0 ? 0 : 1);
