import type { Gait } from '../../document/shot-rider.js';
import type { NodeDriver } from '../hierarchy/node-driver.js';
import { initialPose, type HierarchyPose } from '../hierarchy/node-hierarchy.js';
import { distance3, type Vec3 } from '../../geometry/math/vec.js';
import { footTrack, lockBegun, samplesOf, type FootTrack, type Glide, type Lock } from './foot-lock.js';
import { KeptNumbers } from '../../geometry/math/kept-numbers.js';
import { FootSolver, SEEN, type FootScene } from './foot-solver.js';
import { MARGIN_SECONDS } from './walk-phase.js';
import { legOf } from './leg.js';
import { blendPoses } from './sample-clip.js';
import { planSteps, type FootDown, type FootPlan } from './step-plan.js';
import type { WalkPoses } from './walk-poses.js';

/** A foot that was set down: how far it slides while it is, metres along the ground. */
export interface Plant extends FootDown {
  readonly foot: string;
  /** By the clip alone. */
  readonly slide: number;
  /** As it is shown: with planting, where the leg reaches. */
  readonly left: number;
  /** Position in the world. */
  readonly position: Vec3;
  /** Which way the walker is turned there, radians. */
  readonly turn: number;
}

/** A walker whose feet are set on the ground. */
export interface Walk {
  readonly driver: NodeDriver;
  /** In order of time, foot by foot; computed when first asked for. */
  plants(): readonly Plant[];
  /** The steps of a foot that no clip has. */
  steps(foot: number): readonly Glide[];
  /**
   * How far a foot that is seen on the ground is from where it was set down, metres along the ground; of one that touches it
   * without having been set down, how far it is dragged a frame. 0 in the air.
   */
  slide(foot: number, frame: number): number;
  /** How far the lowest place of a foot is seen under the ground, metres; without any, under where its clips have it. */
  under(foot: number, frame: number): number;
}

export interface WalkScene extends FootScene {
  readonly gait: Gait;
  readonly range: { readonly first: number; readonly last: number; readonly fps: number };
  /** Weight of its carrier at a frame, 0 to 1: as far as it is carried its clips alone pose it. Null without carriers. */
  readonly carried?: ((frame: number) => number) | null;
}

/** A step is lifted by this part of how far it goes, between these, metres at the figure's size. */
const LIFT = { part: 0.22, least: 0.02, most: 0.09 };
/** A foot that is nearer to the lowest its clips have it than this touches the ground, metres. */
const TOUCHES = 0.003;

/**
 * Feet that stay where they are planted. Each is locked at its position in the middle of its stance, with its
 * rotation there; in between it glides from one lock to the next. Where the walker stops, turns on the spot and
 * starts, it takes own steps. Two-bone inverse kinematics bends the legs, and the hips are lowered where a leg would
 * not reach. On the ground, the lowest point of a foot is as high over the ground as the clip has it over its own
 * floor, and a planted foot leans with the ground; where clips are blended its sole comes no lower than theirs.
 */
export function compileWalk(scene: WalkScene): Walk {
  const { gait, hierarchy, walk, range } = scene;
  const legs = gait.feet.map(({ node }) => legOf(hierarchy, node));
  const solver = new FootSolver(scene, legs);
  const size = scene.axes.scale[2];
  const tracks = tracksOf(
    scene,
    solver,
    legs.map((leg) => leg !== null),
    size,
  );
  const plant = gait.plant;
  const bends = plant || scene.ground !== null;
  const legNodes = legs.flatMap((leg) => (leg ? [leg.top, leg.middle, leg.foot] : []));
  const carried = scene.carried ?? (() => 0);
  const clips = initialPose(hierarchy);
  const whole = scene.posed.posesOf(null);
  const moved = [...new Set([...whole.nodes, ...(bends ? [solver.pelvis, ...legNodes] : [])])].filter(
    (node) => node >= 0,
  );
  /** Poses the walker with its feet set down; by the poses of its legs alone, no more than those. */
  const walkOn = (frame: number, pose: HierarchyPose, by: WalkPoses) => {
    by.pose(frame, pose);
    const part = carried(frame);
    if (!bends || part >= 1) return;
    if (part === 0) return solver.bend(frame, pose, plant ? tracks : null);
    clips.locals.set(pose.locals);
    clips.weights.forEach((weights, i) => weights.set(pose.weights[i]));
    solver.bend(frame, pose, plant ? tracks : null);
    blendPoses(pose, clips, part, moved);
  };
  const driver: NodeDriver = { nodes: moved, apply: (frame, pose) => walkOn(frame, pose, whole) };
  const shown = initialPose(hierarchy);
  const rest = initialPose(hierarchy);
  /** By frame what is seen of all feet: asked for foot by foot, and by one gauge after another. */
  const seen = new KeptNumbers(SEEN * legs.length, range.last - range.first + 1);
  const now = new Float64Array(SEEN * legs.length);
  const seenAt = (frame: number): number => {
    const known = seen.find(frame);
    if (known >= 0) return known;
    shown.locals.set(rest.locals);
    walkOn(frame, shown, solver.poses);
    solver.see(frame, shown, now);
    const at = seen.put(frame);
    seen.values.set(now, at);
    return at;
  };
  const shownPlace = (foot: number, frame: number): Vec3 => {
    const at = seenAt(frame) + SEEN * foot;
    return [seen.values[at], seen.values[at + 1], seen.values[at + 2]];
  };
  const over = (foot: number, frame: number) => {
    const at = seenAt(frame) + SEEN * foot;
    return seen.values[at + 3] - seen.values[at + 4];
  };
  let kept: Plant[] | null = null;
  return {
    driver,
    steps: (foot) => tracks[foot].glides,
    plants() {
      kept ??= tracks.flatMap(({ locks }, foot) =>
        locks
          .filter(({ from, to }) => to > range.first && from < range.last + 1)
          // A foot on a carrier has no ground here.
          .filter(({ from, to }) => carried(from) < 1 || carried(to) < 1)
          .map((lock): Plant => {
            const frames = samplesOf(lock).filter((frame) => carried(frame) === 0);
            return {
              ...lock,
              foot: gait.feet[foot].node,
              slide: spread(frames.map((frame) => solver.free(foot, frame))),
              left: spread(frames.map((frame) => shownPlace(foot, frame))),
            };
          }),
      );
      return kept;
    },
    slide(foot, frame) {
      if (legs[foot] === null || carried(frame) > 0) return 0;
      const lock: Lock | undefined = tracks[foot].locks[lockBegun(tracks[foot], frame)];
      if (lock && frame <= lock.to) {
        const from = plant ? lock.position : solver.free(foot, lock.from);
        return level(shownPlace(foot, frame), from);
      }
      const walksOn = walk.idleWeight(frame) === 0 && walk.idleWeight(frame - 1) === 0;
      // A sole that brushes the ground in the swing of its own clip is not a drag.
      if (walksOn || over(foot, frame) > TOUCHES || over(foot, frame - 1) > TOUCHES) return 0;
      return level(shownPlace(foot, frame), shownPlace(foot, frame - 1));
    },
    under(foot, frame) {
      if (legs[foot] === null || carried(frame) > 0) return 0;
      const at = seenAt(frame) + SEEN * foot;
      return Math.max(0, (scene.ground ? 0 : seen.values[at + 4]) - seen.values[at + 3]);
    },
  };
}

/** Locks of each foot, and the steps between them that no clip has. */
function tracksOf(
  { gait, walk, range }: WalkScene,
  solver: FootSolver,
  known: readonly boolean[],
  size: number,
): FootTrack[] {
  const margin = MARGIN_SECONDS * range.fps;
  const span = {
    from: Math.floor(range.first - margin),
    to: Math.ceil(range.last + 1 + margin),
    fps: range.fps,
  };
  if (!known.every(Boolean)) return gait.feet.map(() => footTrack([], []));
  const plans = planSteps(
    gait,
    walk,
    {
      apart: (foot, from, at) => level(solver.free(foot, from), solver.free(foot, at)),
      heading: (frame) => solver.heading(frame),
      wander: (foot, from, to) =>
        size * spread3(samplesOf({ from, to }).map((frame) => solver.ownPosition(foot, frame))),
    },
    span,
    size,
  );
  return plans.map((plan, foot) => trackOf(solver, foot, plan, size));
}

function trackOf(solver: FootSolver, foot: number, { downs, steps }: FootPlan, size: number): FootTrack {
  const locks = downs.map((down): Lock => solver.lock(foot, down));
  // A step lies between two locks, so both its ends are known before.
  const sketch = footTrack(
    locks,
    steps.map((step) => ({ ...step, ...NOWHERE })),
  );
  const glides = steps.map(({ from, to }): Glide => {
    const [start, end] = [solver.placeOnTrack(foot, sketch, from), solver.placeOnTrack(foot, sketch, to)];
    const far = Math.hypot(end.x - start.x, end.z - start.z);
    const lift = Math.min(LIFT.most * size, Math.max(LIFT.least * size, LIFT.part * far));
    return { from, to, start, end, lift };
  });
  return footTrack(locks, glides);
}

const NOWHERE = {
  start: { x: 0, z: 0, height: 0, turn: 0 },
  end: { x: 0, z: 0, height: 0, turn: 0 },
  lift: 0,
};

/** How far apart along the ground the furthest of some places is from the first. */
const spread = (places: readonly Vec3[]) => Math.max(0, ...places.map((place) => level(place, places[0])));
const spread3 = (places: readonly Vec3[]) =>
  Math.max(0, ...places.map((place) => distance3(place, places[0])));
function level(a: Vec3, b: Vec3): number {
  const x = a[0] - b[0];
  const z = a[2] - b[2];
  return Math.sqrt(x * x + z * z);
}
