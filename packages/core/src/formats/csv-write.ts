import {
  sampledRange,
  sampleBlocks,
  type SampleChoice,
  type SampledBlock,
} from '../shot/bake/sample-shot.js';
import type { EvaluatedShot } from '../shot/evaluate/evaluate-shot.js';
import { LOCAL } from '../character/hierarchy/node-hierarchy.js';
import { POSE } from '../motion/pose/pose.js';
import { PARTICLE, aliveAt, particleAt } from '../effects/spray/spray.js';

export const CSV_HEADER = 'frame,time,rider,part,tx,ty,tz,qx,qy,qz,qw,distance,speed,bank';
/** Columns more, where a rider stands on its path with its axles: where along it they are. */
export const AXLE_COLUMNS = ',frontAxle,rearAxle';

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
  const { first } = sampledRange(evaluated.shot, choice);
  const chosen = evaluated.shot.riders.filter(({ id }) => choice.riders?.has(id) ?? true);
  const axles = chosen.map((rider) => evaluated.axleDistances(rider));
  const columns = axles.some((at) => at !== null);
  yield `${CSV_HEADER}${columns ? AXLE_COLUMNS : ''}\n`;
  for (const block of sampleBlocks(evaluated, BLOCK, choice))
    yield* rowsOf(block, first, columns ? axles : null);
}

/** How a CSV is written. */
export interface CsvChoice {
  /** Whether lines with the rate, the range and the units precede the header, each after a `#`. */
  readonly facts?: boolean;
}

function factLines({ shot }: EvaluatedShot, choice: SampleChoice): string {
  const { first, last } = sampledRange(shot, choice);
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

/**
 * The rows of a block, each with its line break; a rider's and those of its parts come at once.
 *
 * @param start the first frame that is written: time is counted from it
 * @param axles by rider where its axles are along its path; null where there are no columns for that
 */
function* rowsOf(
  block: SampledBlock,
  start: number,
  axles: readonly AxlesAt[] | null,
): Generator<string, void, undefined> {
  const { shot, first, frames, riders, shown, sprays, seconds } = block;
  const more = axles ? ',,' : '';
  const names = shot.riders.map((rider) => quoted(rider.id));
  for (let i = 0; i < frames; i++) {
    const frame = first + i;
    const lead = `${frame},${(frame - start) / shot.fps},`;
    for (let r = 0; r < riders.length; r++) {
      if (shown[r]?.[i] !== false)
        yield riderRows(block, `${lead}${names[r]},`, r, i, axles && { frame, at: axles[r] });
      // Particles fly on, whether their rider is shown or not.
      const spray = sprays[r];
      for (const { n, age } of spray ? aliveAt(spray, seconds[i]) : []) {
        if (spray) particleAt(spray, n, age, particle);
        yield `${lead}${names[r]},particle ${n + 1},${numbers(particle, 0, PARTICLE.size)},,,${more}\n`;
      }
    }
  }
}

type AxlesAt = ReturnType<EvaluatedShot['axleDistances']>;

/**
 * A rider's row, and those of its parts.
 *
 * @param axles null where there are no columns for axles
 */
function riderRows(
  { riders, parts }: SampledBlock,
  lead: string,
  r: number,
  i: number,
  axles: { readonly frame: number; readonly at: AxlesAt } | null,
): string {
  const { nodes, size, values } = parts[r];
  const more = axles ? ',,' : '';
  const pose = i * POSE.size;
  let rows: string;
  if (axles?.at) {
    axles.at(axles.frame, along);
    const own = riders[r].slice(pose, pose + POSE.size);
    own[POSE.distance] = along.origin;
    rows = `${lead},${numbers(own, 0, POSE.size)},${along.frontAxle},${along.rearAxle}\n`;
  } else rows = `${lead},${numbers(riders[r], pose, POSE.size)}${more}\n`;
  for (const { name, at } of nodes)
    rows += `${lead}${quoted(name)},${numbers(values, i * size + at, LOCAL.scale)},,,${more}\n`;
  return rows;
}

const along = { origin: 0, frontAxle: 0, rearAxle: 0 };

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
