import type { Outside, Pace, Variation } from '../../document/shot-pace.js';
import { composeJets, cubicJet, newJet, type Jet, type JetAt } from '../../geometry/math/jet.js';
import { seededNumbers } from '../../geometry/math/seeded.js';
import type { PaceCurve } from './compiled-pace.js';

/**
 * A curve that goes on before its first and after its last frame: held, run on at its speed, or cycle after
 * cycle: over again, over again from where it was, or to and fro; each cycle, where that is asked for, a
 * little different. Within a part of a path it does not go on from where it was, but to and fro; and a cycle that differs turns round
 * before an end that it would pass.
 *
 * @param held between which distances the rider is held, metres
 */
export function withOutside(
  curve: PaceCurve,
  { before, after, variation, within }: Pace,
  held: readonly [number, number],
): JetAt {
  const { from, to, jet } = curve;
  const span = to - from;
  const plain = variation === null || (variation.time === 0 && variation.amount === 0);
  const ends = { first: newJet(), last: newJet() };
  if (Number.isFinite(from)) jet(from, ends.first);
  if (Number.isFinite(to)) jet(to, ends.last);
  const cycles =
    span > 0 && Number.isFinite(span) ? cyclesOf(curve, ends, plain ? null : variation, held) : null;
  const beyond = (way: Outside, end: Jet, off: number, frame: number, out: Jet) => {
    if (way === 'hold' || way === 'run' || cycles === null) {
      const rate = way === 'run' ? end[1] : 0;
      cubicJet(end[0], rate, 0, 0, off, out);
    } else cycles(way === 'accumulate' && within !== null ? 'mirror' : way, frame, out);
  };
  return (frame, out) => {
    if (frame < from) beyond(before, ends.first, frame - from, frame, out);
    else if (frame > to) beyond(after, ends.last, frame - to, frame, out);
    else jet(frame, out);
  };
}

type Cycles = (way: 'repeat' | 'accumulate' | 'mirror', frame: number, out: Jet) => void;

function cyclesOf(
  { from, to, jet }: PaceCurve,
  { first, last }: { first: Jet; last: Jet },
  variation: Variation | null,
  held: readonly [number, number],
): Cycles {
  const span = to - from;
  const gain = last[0] - first[0];
  const phase = newJet();
  const inner = newJet();
  return (way, frame, out) => {
    // Counted in cycles: the whole part says which, the rest how far into it.
    const cycle = cycleAt((frame - from) / span, variation, phase);
    phase[1] /= span;
    phase[2] /= span * span;
    phase[3] /= span * span * span;
    const backward = way === 'mirror' && cycle % 2 !== 0;
    const part = phase[0] - cycle;
    cubicJet(backward ? to - part * span : from + part * span, backward ? -span : span, 0, 0, 0, inner);
    composeJets(inner, phase, phase);
    jet(Math.min(to, Math.max(from, inner[0])), inner);
    composeJets(inner, phase, out);
    if (variation !== null && gain !== 0) {
      const ends = backward ? [last[0], first[0]] : [first[0], last[0]];
      const [here, next] = ends.map((end, i) => {
        const stray = strayOf(variation, cycle + i, 1);
        return way === 'accumulate' ? stray : inside(end, variation.amount * gain, stray, held);
      });
      varyAmount(out, [here, next], variation, first[0], gain, backward);
    }
    if (way === 'accumulate') out[0] += cycle * gain;
  };
}

/**
 * Which cycle a time is in, and the time in cycles with its derivatives. Where each cycle is given another
 * length, its own time is a cubic that passes from one to the next at an even rate.
 *
 * @param time in lengths of the keyed cycle
 */
function cycleAt(time: number, variation: Variation | null, phase: Jet): number {
  let cycle = Math.floor(time);
  if (variation === null) {
    cubicJet(time, 1, 0, 0, 0, phase);
    return cycle;
  }
  const start = (n: number) => n + variation.time * strayOf(variation, n, 0);
  while (start(cycle) > time) cycle--;
  while (start(cycle + 1) <= time) cycle++;
  const length = start(cycle + 1) - start(cycle);
  const x = time - start(cycle);
  // From 0 to 1 over its length, at a rate of 1 at both ends.
  cubicJet(0, 1, 3 / length ** 2 - 3 / length, 1 / length ** 2 - 2 / length ** 3 + 1 / length ** 2, x, phase);
  phase[0] += cycle;
  return cycle;
}

/** Blend of two variations across a cycle, by the distance travelled: a stop stays a stop. */
function varyAmount(
  out: Jet,
  [here, next]: readonly number[],
  variation: Variation,
  start: number,
  gain: number,
  backward: boolean,
): void {
  const way = (out[0] - start) / gain;
  const progress = Math.min(1, Math.max(0, backward ? 1 - way : way));
  const scale = (backward ? -1 : 1) / gain;
  const much = variation.amount * gain;
  const change = much * (next - here);
  cubicJet(here * much, 0, 3 * change, -2 * change, progress, strays);
  strays[1] *= scale;
  strays[2] *= scale * scale;
  strays[3] *= scale * scale * scale;
  composeJets(strays, out, strays);
  for (let k = 0; k < 4; k++) out[k] += strays[k];
}

/** A stray from an end of a cycle that leaves it between two places: the other way where it would not. */
function inside(end: number, much: number, stray: number, [low, high]: readonly [number, number]): number {
  const isIn = (one: number) => end + much * one >= low && end + much * one <= high;
  return isIn(stray) || !isIn(0) ? stray : isIn(-stray) ? -stray : 0;
}

const strays = newJet();

/** From −½ to ½ by border between cycles; the keyed cycle's own two have none. */
function strayOf({ seed }: Variation, border: number, what: 0 | 1): number {
  if (border === 0 || border === 1) return 0;
  // Indices count up from 0 both ways from the keyed cycle.
  const index = border > 0 ? 2 * border : 1 - 2 * border;
  return seededNumbers(seed, 2 * index + what)() / 2;
}
