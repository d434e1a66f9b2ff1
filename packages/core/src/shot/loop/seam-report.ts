import { axesOf } from '../../document/rider-axes.js';
import { quat, vec3 } from 'gl-matrix';
import type { Rider } from '../../document/shot-rider.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { isMoving } from '../evaluate/evaluate-shot.js';
import { hierarchyOfRider } from '../evaluate/scene-assets.js';
import type { GaugeKind } from '../evaluate/gauges.js';
import { DEGREES } from '../../geometry/math/angle.js';
import { distance3, type Vec3 } from '../../geometry/math/vec.js';
import { axisVector } from '../../motion/pose/axes.js';
import { focalAt } from '../../motion/pose/camera.js';
import { pointOn } from '../../motion/pose/point-on.js';
import { sourceFrame } from '../../motion/timing/retiming.js';
import { POSE, type PoseAt } from '../../motion/pose/pose.js';
import type { ModelShapes } from '../../geometry/solid/model-mesh.js';
import { wheelFolds } from './wheel-symmetry.js';
import { rotationIn } from '../../motion/pose/pose.js';
import { seamPartner } from './partners.js';

export type SeamChannel =
  'place' | 'heading' | 'bank' | 'roll' | 'speed' | 'wheel' | 'gait' | 'cycle' | 'part' | 'swing' | 'focal';

/** How far a channel of a rider is at the frame after the last from where it begins again. */
export interface SeamGap {
  readonly rider: string;
  readonly channel: SeamChannel;
  /** The wheel, cycle or part that is meant. */
  readonly part: string | null;
  /** In {@link SEAM_UNITS}, never negative. */
  readonly gap: number;
  /** Gap of its rate, per second; null if it has none of its own. */
  readonly rate: number | null;
  /** How many times the part looks the same in one turn, see {@link wheelFolds}; 1 for all but wheels. */
  readonly folds: number;
  /** The rider it has to meet: itself, or the next of a relay. */
  readonly meets: string;
  /** The last of a relay leaves here and the first enters there: no gap to close. */
  readonly handsOver: boolean;
}

export const SEAM_UNITS: Readonly<Record<SeamChannel, string>> = {
  place: 'm',
  heading: '°',
  bank: '°',
  roll: '°',
  speed: 'm/s',
  wheel: '°',
  gait: '%',
  cycle: '%',
  part: '',
  swing: '°',
  focal: 'mm',
};

/** Gaps up to here are invisible: of the value, and of its rate per second. */
const SEAM_TOLERANCE: Readonly<Record<SeamChannel, { readonly gap: number; readonly rate: number }>> = {
  place: { gap: 1e-3, rate: 0.05 },
  heading: { gap: 0.1, rate: 2 },
  bank: { gap: 0.1, rate: 2 },
  roll: { gap: 0.1, rate: 2 },
  speed: { gap: 0.02, rate: 0.5 },
  wheel: { gap: 1, rate: 30 },
  gait: { gap: 0.5, rate: 5 },
  cycle: { gap: 0.5, rate: 5 },
  part: { gap: 1e-2, rate: 1 },
  swing: { gap: 0.1, rate: Infinity },
  focal: { gap: 0.01, rate: 1 },
};

/** Whether a gap is to be seen. */
export function isOpen({ channel, gap, rate, handsOver }: SeamGap): boolean {
  const most = SEAM_TOLERANCE[channel];
  return !handsOver && (gap > most.gap || (rate ?? 0) > most.rate);
}

/** Frames over which rates are taken. */
const STEP = 1e-3;

/**
 * Every channel of every rider that moves, at the frame after the last against the first: the value, and what it
 * changes by on either side.
 *
 * @param shapes meshes by model, by which a spoked wheel may end on any of its spokes; a wheel without one must end on a whole turn
 */
export function seamReport(evaluated: EvaluatedShot, shapes: ModelShapes): SeamGap[] {
  return evaluated.shot.riders.flatMap((rider) => seamOf(evaluated, rider, shapes));
}

/** The same of one rider. */
export function seamOf(evaluated: EvaluatedShot, rider: Rider, shapes: ModelShapes): SeamGap[] {
  const { shot, poses } = evaluated;
  const camera = rider.camera !== null && rider.camera.keys.length > 0;
  if (!isMoving(shot, rider) && evaluated.gauges(rider).length === 0 && !camera) return [];
  const partner = seamPartner(shot, rider);
  const entry = (channel: SeamChannel, [gap, rate]: Gap, part: string | null = null, folds = 1): SeamGap => ({
    rider: rider.id,
    channel,
    part,
    gap,
    rate,
    folds,
    meets: partner.rider.id,
    handsOver: partner.handsOver,
  });
  const indexOf = ({ id }: Rider) => shot.riders.findIndex((other) => other.id === id);
  const gaps = poseGaps(evaluated, rider, poses[indexOf(rider)], poses[indexOf(partner.rider)]).map(
    // Dynamic bodies may change their speed at once anywhere: they are compared by speed, not by its rate.
    ([channel, [gap, rate]]) => entry(channel, [gap, rider.rigidBody === null ? rate : null]),
  );
  gaps.push(
    ...turningGaps(evaluated, rider, partner.rider, shapes).map(([channel, part, folds, gap]) =>
      entry(channel, gap, part, folds),
    ),
  );
  gaps.push(
    ...evaluated.swingGaps(rider).map(({ node, gap }) => entry('swing', [gap * DEGREES, null], node)),
  );
  const { camera: lens } = rider;
  if (lens) {
    const focal = (frame: number) => focalAt(lens, sourceFrame(evaluated.shot, frame));
    gaps.push(entry('focal', scalarGap(evaluated, focal, focal)));
  }
  return gaps;
}

type Gap = readonly [number, number | null];
type Value = (frame: number) => number;

/** The gap between a value's end and a value's beginning, and that of their rates a second. */
function scalarGap({ shot }: EvaluatedShot, ends: Value, begins: Value): Gap {
  const { fps, range } = shot;
  const last = range.last + 1;
  const before = (ends(last) - ends(last - STEP)) / STEP;
  const after = (begins(range.first + STEP) - begins(range.first)) / STEP;
  return [Math.abs(ends(last) - begins(range.first)), Math.abs(after - before) * fps];
}

function poseGaps(
  evaluated: EvaluatedShot,
  rider: Rider,
  ends: PoseAt,
  begins: PoseAt,
): [SeamChannel, Gap][] {
  const { fps, range } = evaluated.shot;
  const { forward, up } = axesOf(rider);
  const nose = axisVector(forward);
  const side = axisVector(up);
  const sampleAt = (pose: PoseAt, frame: number): PoseSample => {
    const now = new Float64Array(POSE.size);
    pose(frame, now, 0);
    const position: Vec3 = [now[0], now[1], now[2]];
    const tip: Vec3 = [0, 0, 0];
    pointOn(now, nose, tip);
    vec3.subtract(tip, tip, position);
    const beside = vec3.transformQuat([0, 0, 0], side, rotationIn(now)) as Vec3;
    return { position, nose: tip, side: beside, bank: now[POSE.bank], speed: now[POSE.speed] };
  };
  const last = range.last + 1;
  const [e0, e1] = [sampleAt(ends, last - STEP), sampleAt(ends, last)];
  const [b0, b1] = [sampleAt(begins, range.first), sampleAt(begins, range.first + STEP)];
  const perSecond = fps / STEP;
  const turn = (a: Vec3, b: Vec3): number =>
    Math.atan2(vec3.length(vec3.cross([0, 0, 0], a, b)), vec3.dot(a, b)) * DEGREES;
  const change = (a: Vec3, b: Vec3): Vec3 =>
    vec3.scale([0, 0, 0], vec3.subtract([0, 0, 0], b, a), perSecond) as Vec3;
  const scalar = (of: (look: PoseSample) => number): Gap => [
    Math.abs(of(e1) - of(b0)),
    Math.abs(of(b1) - of(b0) - of(e1) + of(e0)) * perSecond,
  ];
  return [
    [
      'place',
      [
        distance3(e1.position, b0.position),
        distance3(change(e0.position, e1.position), change(b0.position, b1.position)),
      ],
    ],
    [
      'heading',
      [turn(e1.nose, b0.nose), distance3(change(e0.nose, e1.nose), change(b0.nose, b1.nose)) * DEGREES],
    ],
    ['bank', scalar(({ bank }) => bank)],
    ['roll', [Math.abs(rolled(e1, b0)), Math.abs(rolled(b0, b1) - rolled(e0, e1)) * perSecond]],
    ['speed', scalar(({ speed }) => speed)],
  ];
}

/** How far something is turned about its nose from one to another, degrees, beside what its nose turns. */
function rolled(from: PoseSample, to: PoseSample): number {
  const noses = [from.nose, to.nose].map((nose) => vec3.normalize([0, 0, 0], nose));
  const along = quat.rotationTo([0, 0, 0, 1], noses[0], noses[1]);
  const was = vec3.transformQuat([0, 0, 0], from.side, along);
  const across = vec3.cross([0, 0, 0], was, to.side);
  return Math.atan2(vec3.dot(across, noses[1]), vec3.dot(was, to.side)) * DEGREES;
}

interface PoseSample {
  readonly position: Vec3;
  readonly nose: Vec3;
  /** Square to the nose. */
  readonly side: Vec3;
  readonly bank: number;
  readonly speed: number;
}

/** The channel of a gauge that has to meet itself, and what of it is missed: a part of a turn, or all of it. */
const GAUGES: Partial<Record<GaugeKind, { channel: SeamChannel; cyclic: boolean; unit: number }>> = {
  turns: { channel: 'wheel', cyclic: true, unit: 360 },
  phase: { channel: 'gait', cyclic: true, unit: 100 },
  cycle: { channel: 'cycle', cyclic: true, unit: 100 },
  cue: { channel: 'part', cyclic: false, unit: 1 },
};

/** Rotation by distance or time: the part of a turn that is missing or too much. */
function turningGaps(
  evaluated: EvaluatedShot,
  rider: Rider,
  partner: Rider,
  shapes: ModelShapes,
): [SeamChannel, string, number, Gap][] {
  const others = evaluated.gauges(partner);
  return evaluated.gauges(rider).flatMap((gauge, i): [SeamChannel, string, number, Gap][] => {
    const as = GAUGES[gauge.kind];
    if (as === undefined) return [];
    const other = others[i]?.kind === gauge.kind ? others[i] : gauge;
    const [gap, rate] = scalarGap(evaluated, gauge.value, other.value);
    const folds = as.channel === 'wheel' ? foldsOfWheel(evaluated, rider, gauge.part, shapes) : 1;
    // Nobody can see a plain round wheel turn.
    if (folds === Infinity) return [[as.channel, gauge.part, 1, [0, 0]]];
    const missing = as.cyclic ? beyondWhole(gap, 1 / folds) : gap;
    return [[as.channel, gauge.part, folds, [missing * as.unit, (rate ?? 0) * as.unit]]];
  });
}

/** How far a turn is from the nearest number of whole parts of this size. */
const beyondWhole = (turn: number, part: number): number => Math.abs(turn - part * Math.round(turn / part));

/** How often a wheel looks the same in a turn, see {@link wheelFolds}. */
function foldsOfWheel({ assets }: EvaluatedShot, rider: Rider, node: string, shapes: ModelShapes): number {
  const wheel = rider.wheels.find((one) => one.node === node);
  const shape = shapes.get(rider.model ?? '');
  const hierarchy = hierarchyOfRider(assets, rider);
  return wheel && shape && hierarchy ? wheelFolds(shape.mesh, hierarchy, wheel) : 1;
}
