import { vec3 } from 'gl-matrix';
import { refuseCircles, ridersBehind } from '../document/rider-graph.js';
import type { AimTarget } from '../document/shot-facing.js';
import type { Hitch } from '../document/shot-hitch.js';
import type { Chassis, Rider } from '../document/shot-rider.js';
import type { ShotPath } from '../document/shot-path.js';
import type { Shot } from '../document/shot.js';
import type { Vec3 } from '../math/vec.js';
import { compilePace, type CompiledPace } from '../pace/compile-pace.js';
import { compilePath } from '../path/compile-path.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { PathError } from '../path/path-error.js';
import type { TargetAt } from '../rider/aiming.js';
import { compileCourse, echoPace, stringPace, type Course } from '../rider/course.js';
import { placeOn } from '../rider/place-on.js';
import { POSE } from '../rider/pose.js';
import { restPose } from '../rider/rest-pose.js';

import { referenceOf, ridePath, type PoseAt } from '../rider/ride-path.js';
import { compileStanding, senseOf, type Standing } from '../rider/standing.js';

/** A shot whose paths and riders answer questions at any frame. */
export interface EvaluatedShot {
  readonly shot: Shot;
  /** By path id: the curve, or why there is none. */
  readonly paths: ReadonlyMap<string, CompiledPath | PathError>;
  /** In the order of the document's riders. */
  readonly poses: readonly PoseAt[];
}

const compiledPaths = new WeakMap<ShotPath, CompiledPath | PathError>();

/** The curve of a path of the document, computed once for as long as that path is unchanged. */
export function compiledPathOf(path: ShotPath): CompiledPath | PathError {
  const known = compiledPaths.get(path);
  if (known !== undefined) return known;
  let result: CompiledPath | PathError;
  try {
    result = compilePath(path);
  } catch (error) {
    if (!(error instanceof PathError)) throw error;
    result = error;
  }
  compiledPaths.set(path, result);
  return result;
}

/**
 * Compiles what the document describes; a path without a curve leaves its riders at rest.
 *
 * @throws ShotError where riders wait for each other in a circle, with their names
 */
export function evaluateShot(shot: Shot): EvaluatedShot {
  refuseCircles(shot.riders);
  const rides = new Rides(shot);
  // A ride is compiled when it is first asked for: an edit of one rider costs that one.
  const poses = shot.riders.map((rider): PoseAt => {
    let made: PoseAt | null = null;
    return (frame, out, at) => (made ??= rides.pose(rider))(frame, out, at);
  });
  return { shot, paths: rides.paths, poses };
}

/** The rides of a shot, each made once and after those it follows from. */
class Rides {
  readonly paths: ReadonlyMap<string, CompiledPath | PathError>;
  private readonly byId: ReadonlyMap<string, Rider>;
  private readonly poses = new Map<Rider, PoseAt>();
  private readonly courses = new Map<Rider, Course | null>();

  constructor(private readonly shot: Shot) {
    this.paths = new Map(shot.paths.map((path) => [path.id, compiledPathOf(path)]));
    this.byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
  }

  pose(rider: Rider): PoseAt {
    const known = this.poses.get(rider) ?? this.makePose(rider);
    this.poses.set(rider, known);
    return known;
  }

  private makePose(rider: Rider): PoseAt {
    const { hitch } = rider;
    const parent = this.find(rider.parent);
    const rest = restPose(rider.rest, parent ? this.pose(parent) : null);
    const course = this.course(rider);
    if (hitch === null || course === null) return rest;
    const { fps, loop, range } = this.shot;
    return ridePath(rider, hitch, {
      course,
      rest,
      target: hitch.facing.mode === 'aim' ? this.target(hitch.facing.target) : null,
      range: { ...range, loop, fps },
    });
  }

  /** Where a rider is along its path over time; null where it rides none. */
  private course(rider: Rider): Course | null {
    const known = this.courses.get(rider);
    if (known !== undefined) return known;
    const made = this.makeCourse(rider);
    this.courses.set(rider, made);
    return made;
  }

  private makeCourse(rider: Rider): Course | null {
    const { hitch } = rider;
    const path = this.curveOf(hitch);
    if (hitch === null || path === null) return null;
    const standing = compileStanding(
      path,
      referenceOf(hitch.facing),
      hitch.anchor,
      scaledChassis(rider),
      senseOf(hitch.offset),
    );
    return compileCourse(hitch, path, this.timing(hitch, path, standing), standing, this.shot.fps);
  }

  /** A rider's timing without its own offset; one whose leader rides something else, or nothing, goes by its own. */
  private timing(hitch: Hitch, path: CompiledPath, standing: Standing): CompiledPace {
    const { follows, pacedBy } = hitch;
    const leader = this.find(follows?.rider ?? pacedBy?.rider ?? null);
    const course = leader && this.course(leader);
    if (leader?.hitch && course) {
      if (follows && leader.hitch.path === hitch.path) return stringPace(follows, course, standing);
      if (pacedBy) return echoPace(pacedBy, course.timing, this.shot.range.first);
    }
    return compilePace(hitch.pace, this.shot.fps, path.length);
  }

  private target(target: AimTarget | null): TargetAt | null {
    if (target?.point) {
      const { point } = target;
      return (_, out) => vec3.copy(out, point);
    }
    const rider = this.find(target?.rider ?? null);
    if (rider === undefined) return null;
    const pose = this.pose(rider);
    const now = new Float64Array(POSE.size);
    const part: Vec3 = target?.at
      ? (vec3.multiply([0, 0, 0], target.at, rider.rest.scale) as Vec3)
      : [0, 0, 0];
    return (frame, out) => {
      pose(frame, now, 0);
      placeOn(now, part, out);
    };
  }

  private curveOf(hitch: Hitch | null): CompiledPath | null {
    const path = hitch && this.paths.get(hitch.path);
    return path && !(path instanceof PathError) ? path : null;
  }

  private find(id: string | null): Rider | undefined {
    return id === null ? undefined : this.byId.get(id);
  }
}

/** A chassis in metres of the world: scaled as the rider is along its nose. */
function scaledChassis({ chassis, hitch, rest }: Rider): Chassis | null {
  if (chassis === null) return null;
  const scale = Math.abs(rest.scale['xyz'.indexOf(hitch?.facing.forward[1] ?? 'z')]);
  return {
    frontAxle: chassis.frontAxle * scale,
    rearAxle: chassis.rearAxle * scale,
    frontCoupling: chassis.frontCoupling * scale,
    rearCoupling: chassis.rearCoupling * scale,
  };
}

/** Whether a rider's place can change over time: it rides, or what carries it does. */
export function isMoving(shot: Shot, rider: Rider): boolean {
  if (rider.hitch !== null) return true;
  const parent = shot.riders.find((other) => other.id === rider.parent);
  return parent !== undefined && isMoving(shot, parent);
}

/** A rider and all that its pose follows from, each once; riders are found by id. */
export function withRidersBehind(byId: ReadonlyMap<string, Rider>, rider: Rider): Rider[] {
  const found = new Set([rider]);
  for (const next of found) {
    for (const id of ridersBehind(next)) {
      const other = byId.get(id);
      if (other) found.add(other);
    }
  }
  return [...found];
}
