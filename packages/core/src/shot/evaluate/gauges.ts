import type { Rider } from '../../document/shot-rider.js';
import { middleSteer } from '../../vehicle/wheels/rolling.js';
import type { CuedPart } from './moved-parts.js';
import type { RiderContact } from './rider-contact.js';
import { DEGREES } from '../../geometry/math/angle.js';

/** Gauge of a rider. */
export type GaugeKind =
  /** Turns of a wheel since the start of its path. */
  | 'turns'
  /** Of a wheel that steers, and of the steering wheel; degrees. */
  | 'steer'
  | 'steering'
  /** Sideways slip of a wheel that cannot steer, m/s. */
  | 'slip'
  /** Of the body, degrees. */
  | 'roll'
  | 'pitch'
  /** Cycles of the walk since the start of its path, and steps a second. */
  | 'phase'
  | 'cadence'
  /** Of a foot that is on the ground; and how far its lowest place is under that, or without any under where its clips have it: millimetres. */
  | 'slide'
  | 'under'
  /** Cycles gone through since the first frame. */
  | 'cycle'
  /** Cued value of a part: degrees or metres. */
  | 'cue'
  /** How far forces let it be behind its place on the path, metres. */
  | 'lag';

/** One value of a rider over the shot. */
export interface Gauge {
  readonly kind: GaugeKind;
  /** The wheel, foot, cycle or part that is meant. */
  readonly part: string;
  value(frame: number): number;
}

/** All that can be read off a rider beside its pose, in the time of the work. */
export function gaugesOf(
  rider: Rider,
  contact: RiderContact,
  cued: readonly CuedPart[],
  lag: ((frame: number) => number) | null,
): Gauge[] {
  const { wheels, lean, gait, walk, cycles } = contact;
  const gauges: Gauge[] = [];
  const add = (kind: GaugeKind, part: string, value: (frame: number) => number) =>
    gauges.push({ kind, part, value });
  if (lag) add('lag', '', lag);
  for (const { wheel, turned, steer, slip } of wheels) {
    add('turns', wheel.node, (frame) => turned(frame) / (2 * Math.PI));
    if (wheel.steers) add('steer', wheel.node, (frame) => steer(frame) * DEGREES);
    else add('slip', wheel.node, slip);
  }
  const { node, ratio } = rider.steering;
  if (node !== null && wheels.some(({ wheel }) => wheel.steers))
    add('steering', node, (frame) => ratio * middleSteer(wheels, frame) * DEGREES);
  if (lean && rider.body.node !== null) {
    add('roll', rider.body.node, (frame) => lean.roll(frame) * DEGREES);
    add('pitch', rider.body.node, (frame) => lean.pitch(frame) * DEGREES);
  }
  if (gait && rider.gait) {
    const steps = rider.gait.feet.reduce((sum, { stances }) => sum + stances.length, 0);
    add('phase', rider.gait.clip, (frame) => gait.phase(frame));
    add('cadence', rider.gait.clip, (frame) => Math.abs(gait.rate(frame)) * steps);
    rider.gait.feet.forEach((foot, i) => {
      if (!walk) return;
      add('slide', foot.node, (frame) => walk.slide(i, frame) * 1e3);
      add('under', foot.node, (frame) => walk.under(i, frame) * 1e3);
    });
  }
  rider.cycles.forEach((cycle, i) => add('cycle', cycle.node, cycles[i].phase));
  for (const part of cued) add('cue', part.node, part.value);
  return gauges;
}
