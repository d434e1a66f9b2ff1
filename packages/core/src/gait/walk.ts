import type { Gait } from '../document/shot-rider.js';
import type { Vec3 } from '../math/vec.js';
import type { NodeDriver } from '../hierarchy/node-driver.js';
import { initialPose } from '../hierarchy/node-hierarchy.js';
import { samplesOf, type Lock } from './foot-lock.js';
import { FootSolver, type FootScene } from './foot-solver.js';
import { MARGIN_SECONDS } from './free-walk.js';
import { legOf } from './leg.js';
import { footDowns, type FootDown } from './plants.js';

/** A foot that was set down: how far it slides while it is, metres along the ground. */
export interface Plant extends FootDown {
  readonly foot: string;
  /** By the clip alone. */
  readonly slide: number;
  /** As it is shown: with planting, where the leg reaches. */
  readonly left: number;
  /** Where it stands in the world. */
  readonly place: Vec3;
  /** Which way the walker is turned there, radians. */
  readonly turn: number;
}

/** A walker whose feet are set on the ground. */
export interface Walk {
  readonly driver: NodeDriver;
  /** In order of time, foot by foot; computed when first asked for. */
  plants(): readonly Plant[];
  /** How far a foot is from where it was set down, metres along the ground; 0 in the air. */
  slide(foot: number, frame: number): number;
}

export interface WalkScene extends FootScene {
  readonly gait: Gait;
  readonly range: { readonly first: number; readonly last: number; readonly fps: number };
}

/**
 * Feet that stay where they are set down. Each is locked where the clip has it in the middle of its stance (and turned as it is
 * there); in between, it is led from one lock to the next. Two-bone inverse kinematics bends the legs, and the hips come down
 * where a leg would not reach. On the ground, a foot stands as high over it as the clip has it over its own floor.
 */
export function compileWalk(scene: WalkScene): Walk {
  const { gait, hierarchy, walk, range } = scene;
  const legs = gait.feet.map(({ node }) => legOf(hierarchy, node));
  const solver = new FootSolver(scene, legs);
  const margin = MARGIN_SECONDS * range.fps;
  const span = {
    from: Math.floor(range.first - margin),
    to: Math.ceil(range.last + 1 + margin),
    fps: range.fps,
  };
  const locks = gait.feet.map((foot, i): Lock[] =>
    legs[i] ? footDowns(foot, gait, walk, span).map((down) => solver.lock(i, down)) : [],
  );
  const plant = gait.plant;
  const driver: NodeDriver = {
    nodes: [
      ...new Set([
        ...walk.nodes,
        ...(plant || scene.ground
          ? [solver.pelvis, ...legs.flatMap((leg) => (leg ? [leg.top, leg.middle, leg.foot] : []))]
          : []),
      ]),
    ].filter((node) => node >= 0),
    apply(frame, pose) {
      walk.pose?.(frame, pose);
      if (plant || scene.ground) solver.bend(frame, pose, plant ? locks : null);
    },
  };
  const shown = initialPose(hierarchy);
  const rest = initialPose(hierarchy);
  const shownPlace = (foot: number, frame: number): Vec3 => {
    shown.locals.set(rest.locals);
    driver.apply(frame, shown);
    return solver.place(foot, frame, shown);
  };
  const within = (foot: number, frame: number) =>
    locks[foot].find(({ from, to }) => frame >= from && frame <= to);
  let built: Plant[] | null = null;
  return {
    driver,
    plants() {
      built ??= locks.flatMap((list, foot) =>
        list
          .filter(({ from, to }) => to > range.first && from < range.last + 1)
          .map((lock): Plant => {
            const frames = samplesOf(lock);
            return {
              ...lock,
              foot: gait.feet[foot].node,
              slide: spread(frames.map((frame) => solver.free(foot, frame))),
              left: spread(frames.map((frame) => shownPlace(foot, frame))),
            };
          }),
      );
      return built;
    },
    slide(foot, frame) {
      const lock = within(foot, frame);
      if (!lock) return 0;
      const from = plant ? lock.place : solver.free(foot, lock.from);
      return level(shownPlace(foot, frame), from);
    },
  };
}

/** How far apart along the ground the furthest of some places is from the first. */
const spread = (places: readonly Vec3[]) => Math.max(0, ...places.map((place) => level(place, places[0])));
const level = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[2] - b[2]);
