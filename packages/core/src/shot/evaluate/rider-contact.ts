import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { compileCycle, type CycleMotion } from '../../character/gait/cycle-value.js';
import { compileWalkPhase, type WalkPhase } from '../../character/gait/walk-phase.js';
import { compileWalk, type Walk } from '../../character/gait/walk.js';
import { playBlocks, type PlayedBlock } from '../../character/gait/clip-blocks.js';
import { feltCurvature } from '../../geometry/path/corners.js';
import { lateralCurvatureOf } from '../../geometry/path/lateral-curvature.js';
import { compilePush, type PushAt } from '../../motion/ride/lateral.js';
import { compileTravel, signedSpeed } from '../../motion/ride/travel.js';
import type { NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import type { ChassisMotion } from '../../motion/ride/chassis-motion.js';
import { ownAxes } from '../../motion/ride/contact-points.js';
import type { PathMotion } from '../../motion/ride/path-motion.js';
import type { GroundFit } from '../../motion/ride/ground-fit.js';
import { carriedPart } from '../../motion/pose/carriers.js';
import type { PoseAt } from '../../motion/pose/pose.js';
import { compileBall } from '../../vehicle/wheels/ball-roll.js';
import { compileLean, type BodyLean } from '../../vehicle/wheels/body-lean.js';
import { compileWheels, type RollingWheel } from '../../vehicle/wheels/rolling.js';
import { wheelTravel } from '../../vehicle/wheels/wheel-travel.js';
import type { SceneAssets } from './scene-assets.js';

/** Ground contact of a rider, and its self-moving parts. */
export interface RiderContact {
  readonly wheels: readonly RollingWheel[];
  readonly lean: BodyLean | null;
  /** How it is set on the ground; null where it keeps the height of its path. */
  readonly groundFit: GroundFit | null;
  /** How a ball has turned in the world; null for what is none. */
  readonly ball: ((frame: number, out: Quat) => void) | null;
  readonly gait: WalkPhase | null;
  /** Null where its model is not known, or lacks the clip. */
  readonly walk: Walk | null;
  /** Clips that are played over the gait, in the order of the document's blocks, by the nodes of a hierarchy. */
  blocksIn(hierarchy: NodeHierarchy): readonly PlayedBlock[];
  /** In the order of the document's cycles. */
  readonly cycles: readonly CycleMotion[];
  /** Progress at a frame, for {@link GroundFit}. */
  progress(frame: number): number;
}

/** Inputs of a contact. */
export interface ContactParts {
  readonly shot: Shot;
  readonly motion: PathMotion | null;
  readonly chassis: ChassisMotion | null;
  readonly groundFit: GroundFit | null;
  /** Pose by its own motion alone. */
  readonly own: PoseAt;
  readonly hierarchy: NodeHierarchy | null;
  readonly assets: SceneAssets;
}

export function compileContact(rider: Rider, parts: ContactParts): RiderContact {
  const { shot, motion, chassis, groundFit } = parts;
  const range = { ...shot.range, fps: shot.fps, loop: shot.loop };
  const cycles = rider.cycles.map((cycle) =>
    compileCycle(cycle, { ...range, distance: (frame) => motion?.pace.distance(frame) ?? 0 }),
  );
  if (motion === null || chassis === null) {
    const nothing = { wheels: [], lean: null, groundFit: null, ball: null, gait: null, walk: null };
    return { ...nothing, blocksIn: blocksOf(rider, parts, null), cycles, progress: (frame) => frame };
  }
  const wheels = compileWheels(rider, chassis);
  const [gait, walk] = walkOf(rider, parts, chassis);
  return {
    wheels,
    lean: rider.body.node === null ? null : leanOf(rider, motion, range),
    groundFit,
    ball: ballOf(rider, chassis),
    gait,
    walk,
    blocksIn: blocksOf(rider, parts, gait),
    cycles,
    progress: (frame) => (groundFit?.byDistance ? chassis.progress(frame) : frame),
  };
}

function blocksOf(
  rider: Rider,
  { shot, motion }: ContactParts,
  gait: WalkPhase | null,
): RiderContact['blocksIn'] {
  return (hierarchy) =>
    playBlocks(rider.clips, hierarchy, {
      ...shot.range,
      fps: shot.fps,
      loop: shot.loop,
      distance: (frame) => motion?.pace.distance(frame) ?? 0,
      phase: (frame) => gait?.phase(frame) ?? 0,
    });
}

type Range = { readonly first: number; readonly last: number; readonly fps: number; readonly loop: boolean };

/** Frames over which accelerations of a body are taken, and metres for bends. */
const STEP = 0.25;
const BEND = 1;
/** Seconds for the push of keyed offsets. */
const KEYED = 0.1;

function leanOf(rider: Rider, motion: PathMotion, range: Range): BodyLean {
  const size = rider.attachment?.rideTransform?.size ?? 1;
  const bend = lateralCurvatureOf(motion.path, 'world', BEND);
  const push = pushOver(
    motion,
    compilePush(
      motion,
      (s) => bend.at(s),
      size,
      range.fps,
      () => KEYED * range.fps,
    ),
  );
  const speed = ownSpeed(rider, motion, range.fps);
  const { travelSign } = motion;
  return compileLean(
    rider.body,
    {
      left: (frame) => travelSign * push(frame),
      ahead: (frame) => (travelSign * (speed(frame + STEP) - speed(frame - STEP)) * range.fps) / (2 * STEP),
    },
    range,
  );
}

function pushOver({ pace, offset }: PathMotion, push: PushAt): (frame: number) => number {
  return (frame) => push(frame, pace.distance(frame), pace.speed(frame), offset.at(frame).side);
}

/** How fast a rider goes along its own track beside its path, m/s. */
function ownSpeed({ attachment }: Rider, motion: PathMotion, fps: number): (frame: number) => number {
  if (attachment === null) return () => 0;
  const travel = compileTravel(attachment, motion, null, fps);
  const velocity: Vec3 = [0, 0, 0];
  return (frame) => {
    travel.velocity(frame, velocity);
    return signedSpeed(velocity);
  };
}

/** Lateral acceleration of a rider, m/s² to its path's left, by its own track; corners count as a drive counts them. */
export function sidewaysOf(
  { attachment }: Rider,
  motion: PathMotion | null,
  fps: number,
): (frame: number) => number {
  if (motion === null) return () => 0;
  const size = attachment?.rideTransform?.size ?? 1;
  const felt = (s: number) => feltCurvature(motion.path, s);
  return pushOver(
    motion,
    compilePush(motion, felt, size, fps, () => KEYED * fps),
  );
}

function ballOf({ ball, rest }: Rider, chassis: ChassisMotion): RiderContact['ball'] {
  if (ball === null) return null;
  const roll = compileBall(chassis.track, ball.radius * Math.max(...rest.scale.map(Math.abs)));
  return (frame, out) => roll(chassis.progress(frame), out);
}

function walkOf(
  rider: Rider,
  { shot, groundFit, own, hierarchy, assets }: ContactParts,
  chassis: ChassisMotion,
): [WalkPhase | null, Walk | null] {
  const { gait, attachment, rest } = rider;
  if (gait === null || attachment === null) return [null, null];
  const axes = ownAxes(rider);
  const range = { ...shot.range, fps: shot.fps };
  const track = wheelTravel(chassis.track, [0, 0, 0], false);
  const free = compileWalkPhase(gait, hierarchy, {
    ...range,
    travelled: (frame) => track.rolled(chassis.progress(frame)),
    speed: (frame) => track.speed(chassis.progress(frame)) * chassis.rate(frame),
    scale: axes.scale[0],
  });
  const { posed } = free;
  if (hierarchy === null || posed === null) return [free, null];
  const ground =
    groundFit && attachment.ground.mode === 'stick' && assets.ground
      ? { heights: assets.ground, contact: attachment.ground }
      : null;
  const scale = [...rest.scale] as Vec3;
  // Its feet are locked where it walks; on a carrier the clips alone pose them.
  const carried = carriedPart(rider.parentKeys, shot.fps);
  const scene = { gait, hierarchy, walk: free, posed, pose: own, carried, axes, scale, range, ground };
  return [free, compileWalk(scene)];
}
