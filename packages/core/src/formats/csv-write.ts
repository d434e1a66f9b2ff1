import { framesOf, sampleBlocks, type SampleChoice, type SampledBlock } from '../bake/index.js';
import { frameTime } from '../document/frames.js';
import type { EvaluatedShot } from '../evaluate/index.js';
import { LOCAL } from '../hierarchy/index.js';
import { POSE } from '../pose/index.js';
import { PARTICLE, aliveAt, particleAt } from '../spray/index.js';

export const CSV_HEADER = 'frame,time,rider,part,tx,ty,tz,qx,qy,qz,qw,distance,speed,bank';

/** Numbers of all riders and parts that are held at a time. */
const BLOCK = 200_000;

/**
 * A shot as CSV, a rider's rows at a frame at a time: they are sampled as they are asked for, so that a long one is never held whole.
 * One row per frame and rider, and after it one for each part of its model that moves by itself, in what it hangs on, and for each
 * particle it sprays, in the world; frames outermost, none for a rider while it is hidden; numbers in the shortest form that reads
 * back to the same double.
 */
export function* csvParts(
  evaluated: EvaluatedShot,
  choice: SampleChoice & CsvChoice = {},
): Generator<string, void, undefined> {
  if (choice.facts) yield factLines(evaluated, choice);
  yield `${CSV_HEADER}\n`;
  for (const block of sampleBlocks(evaluated, BLOCK, choice)) yield* rowsOf(block);
}

/** How a CSV is written. */
export interface CsvChoice {
  /** Whether lines with the rate, the range and the units stand before the header, each after a `#`. */
  readonly facts?: boolean;
}

function factLines({ shot }: EvaluatedShot, choice: SampleChoice): string {
  const { first, last } = framesOf(shot, choice);
  return [
    `# fps ${shot.fps}`,
    `# frames ${first} to ${last}${shot.loop ? ', loop' : ''}`,
    '# metres, seconds, degrees of bank; quaternions x y z w; Y is up',
    '',
  ].join('\n');
}

/** The same, whole. */
export function writeCsv(evaluated: EvaluatedShot, choice: SampleChoice & CsvChoice = {}): string {
  return [...csvParts(evaluated, choice)].join('');
}

/** The rows of a block, each with its line break; a rider's and those of its parts come at once. */
function* rowsOf(block: SampledBlock): Generator<string, void, undefined> {
  const { shot, first, frames, riders, shown, sprays, seconds } = block;
  const names = shot.riders.map((rider) => quoted(rider.id));
  for (let i = 0; i < frames; i++) {
    const frame = first + i;
    const lead = `${frame},${frameTime(shot, frame)},`;
    for (let r = 0; r < riders.length; r++) {
      if (shown[r]?.[i] !== false) yield riderRows(block, `${lead}${names[r]},`, r, i);
      // What was sprayed flies on, whether its rider is seen or not.
      const spray = sprays[r];
      for (const { n, age } of spray ? aliveAt(spray, seconds[i]) : []) {
        if (spray) particleAt(spray, n, age, particle);
        yield `${lead}${names[r]},particle ${n + 1},${numbers(particle, 0, PARTICLE.size)},,,\n`;
      }
    }
  }
}

/** A rider's row, and those of its parts. */
function riderRows({ riders, parts }: SampledBlock, lead: string, r: number, i: number): string {
  const { nodes, size, values } = parts[r];
  let rows = `${lead},${numbers(riders[r], i * POSE.size, POSE.size)}\n`;
  for (const { name, at } of nodes)
    rows += `${lead}${quoted(name)},${numbers(values, i * size + at, LOCAL.scale)},,,\n`;
  return rows;
}

const particle = new Float64Array(PARTICLE.numbers);

function numbers(values: Float64Array, at: number, count: number): string {
  let text = String(values[at]);
  for (let k = at + 1; k < at + count; k++) text += `,${values[k]}`;
  return text;
}

/** RFC 4180: quoted where a comma, quote or line break would break the row. */
export function quoted(text: string): string {
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
