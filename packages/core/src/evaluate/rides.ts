import { vec3 } from 'gl-matrix';
import { timingCues } from '../document/rider-graph.js';
import type { Cue } from '../document/shot-cue.js';
import type { AimTarget } from '../document/shot-facing.js';
import type { Hitch } from '../document/shot-hitch.js';
import type { Chassis, Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import { distance3, type Vec3 } from '../math/vec.js';
import { keyedCurve } from '../math/keyed-curve.js';
import type { CompiledPace, Motion } from '../pace/compiled-pace.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { PathError } from '../path/path-error.js';
import type { TargetAt } from '../ride/aiming.js';
import { compilePathMotion, echoPace, stringPace, type PathMotion } from '../ride/path-motion.js';
import { startedAt, stopEndedAt, type CuedMotion } from '../timing/cued-timing.js';
import { compileOffset, type OffsetAt } from '../pose/keyed-offset.js';
import { compileChassis, type ChassisMotion } from '../ride/chassis-motion.js';
import { compileGroundFit, type GroundFit } from '../ride/ground-fit.js';
import type { Pin } from '../ride/trail.js';
import { placeOn } from '../pose/place-on.js';
import { POSE } from '../pose/pose.js';
import { compileRestPose } from '../pose/rest-pose.js';
import { ownRetiming, retimed, type Retiming } from '../timing/retiming.js';
import type { PoseAt } from '../pose/pose.js';
import { referenceOf, ridePath } from '../ride/ride-path.js';
import { compileAxlePlacement, senseOf, type AxlePlacement } from '../ride/axle-placement.js';
import type { CuedPart } from './moved-parts.js';
import type { SceneAssets } from './scene-assets.js';
import { compiledPaceOf } from '../pace/compiled-pace-of.js';
import { compiledPathOf } from '../path/compiled-path-of.js';
import { momentOf } from './cue-moment.js';

/** The rides of a shot, each made once and after those it follows from. */
export class Rides {
  readonly paths: ReadonlyMap<string, CompiledPath | PathError>;
  private readonly byId: ReadonlyMap<string, Rider>;
  private readonly poses = new Map<Rider, PoseAt>();
  private readonly motions = new Map<Rider, PathMotion | null>();
  private readonly groundFits = new Map<Rider, GroundFit | null>();

  constructor(
    private readonly shot: Shot,
    private readonly assets: SceneAssets,
  ) {
    this.paths = new Map(shot.paths.map((path) => [path.id, compiledPathOf(path)]));
    this.byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
  }

  /** A rider's own pace; null where it rides no curve. */
  ownPace(rider: Rider): CompiledPace | null {
    const path = this.curveOf(rider.hitch);
    return rider.hitch && path && compiledPaceOf(rider.hitch.pace, this.shot.fps, path);
  }

  /** What cues do to parts of a rider's model. */
  cuedParts(rider: Rider): CuedPart[] {
    return this.shot.cues.flatMap((cue): CuedPart[] => {
      const { does, off } = cue;
      if (off || does.rider !== rider.id || does.node === null || cue.keys.length === 0) return [];
      if (does.kind !== 'turn' && does.kind !== 'move') return [];
      return [{ kind: does.kind, node: does.node, axis: does.axis, value: this.cueValue(cue) }];
    });
  }

  /** How a rider is set on the ground; null where it is not, or there is none. */
  groundFit(rider: Rider): GroundFit | null {
    const cached = this.groundFits.get(rider);
    if (cached !== undefined) return cached;
    const { hitch } = rider;
    const motion = this.motion(rider);
    const { ground } = this.assets;
    const sticks = hitch?.ground.mode === 'stick';
    const leans = hitch?.facing.reference === 'ground' && hitch.facing.mode !== 'keep';
    const built =
      hitch && motion && ground && (sticks || leans)
        ? compileGroundFit(rider, hitch, motion, ground, sticks)
        : null;
    this.groundFits.set(rider, built);
    return built;
  }

  /** How a rider's chassis moves; null where it rides none. */
  chassis(rider: Rider): ChassisMotion | null {
    const { hitch } = rider;
    const motion = this.motion(rider);
    if (hitch === null || motion === null) return null;
    const { fps, range } = this.shot;
    return compileChassis(rider, hitch, motion, this.groundFit(rider), this.pose(rider), { ...range, fps });
  }

  /** The frame at which a cue's value first comes to 1; null where it never does. */
  moment(cue: Cue): number | null {
    return cue.keys.length === 0 ? null : momentOf(this.cueValue(cue), this.shot.range);
  }

  private cueValue({ on, keys }: Cue): (frame: number) => number {
    const curve = keyedCurve(keys.map(({ at, value, ease }) => ({ frame: at, value, ease })));
    const [rider, other] = [this.find(on.rider), this.find(on.other)];
    if (on.kind === 'frame') return (frame) => curve.value(frame);
    if (on.kind === 'distance') {
      const motion = rider && this.motion(rider);
      return (frame) => curve.value(motion ? motion.pace.distance(frame) : 0);
    }
    const poses = [rider, other].flatMap((one) => (one ? [this.pose(one)] : []));
    const now = poses.map(() => new Float64Array(POSE.size));
    return (frame) => {
      poses.forEach((pose, i) => pose(frame, now[i], 0));
      return curve.value(now.length < 2 ? 0 : distance3(positionIn(now[0]), positionIn(now[1])));
    };
  }

  pose(rider: Rider): PoseAt {
    const cached = this.poses.get(rider) ?? this.makePose(rider);
    this.poses.set(rider, cached);
    return cached;
  }

  private makePose(rider: Rider): PoseAt {
    const { hitch } = rider;
    const parent = this.find(rider.parent);
    const rest = compileRestPose(rider.rest, parent ? this.pose(parent) : null);
    const motion = this.motion(rider);
    if (hitch === null || motion === null) return rest;
    const { fps, loop, range } = this.shot;
    return ridePath(rider, hitch, {
      motion,
      rest,
      target: hitch.facing.mode === 'aim' ? this.target(hitch.facing.target) : null,
      range: { ...range, loop, fps },
      ground: this.groundFit(rider),
    });
  }

  /** Where a rider is along its path over time; null where it rides none. */
  motion(rider: Rider): PathMotion | null {
    const cached = this.motions.get(rider);
    if (cached !== undefined) return cached;
    const built = this.makeMotion(rider);
    this.motions.set(rider, built);
    return built;
  }

  private makeMotion(rider: Rider): PathMotion | null {
    const { hitch } = rider;
    const path = this.curveOf(hitch);
    if (hitch === null || path === null) return null;
    const sense = senseOf(hitch.offset);
    const placement = compileAxlePlacement(
      path,
      referenceOf(hitch.facing),
      hitch.anchor,
      scaledChassis(rider),
      sense,
      this.pin(rider),
    );
    const timing = this.timing(rider, hitch, placement);
    const offset = compileOffset(hitch);
    const bent = ownRetiming(this.shot, rider.id);
    const inTime = bent
      ? { timing: retimed(timing, bent), offset: retimedOffset(offset, bent) }
      : { timing, offset };
    return compilePathMotion({ path, placement, sense, ...inTime }, this.shot.fps);
  }

  /**
   * A rider's timing without its own offset; one whose leader rides something else, or nothing, goes by its own. Only
   * a timing of its own waits for cues.
   */
  private timing(rider: Rider, hitch: Hitch, placement: AxlePlacement): Motion {
    const { follows, pacedBy } = hitch;
    const leader = this.find(follows?.rider ?? pacedBy?.rider ?? null);
    const motion = leader && this.motion(leader);
    if (leader?.hitch && motion) {
      if (follows && leader.hitch.path === hitch.path) return stringPace(follows, motion, placement);
      if (pacedBy) return echoPace(pacedBy, motion.timing, this.shot.range.first);
    }
    const pace = this.ownPace(rider) as CompiledPace;
    const begins = Number.isFinite(pace.from) ? pace.from : hitch.pace.start.frame;
    return timingCues(this.shot.cues, rider.id).reduce<CuedMotion>((motion, cue) => {
      const go = this.moment(cue);
      return cue.does.kind === 'start'
        ? startedAt(motion, begins, go)
        : stopEndedAt(motion, cue.does.stop, go);
    }, pace);
  }

  /** Where a rider that trails behind another on the same path is coupled to it; null where it does not. */
  private pin({ hitch, chassis }: Rider): Pin | null {
    const leader = this.find(hitch?.follows?.rider ?? null);
    if (hitch?.anchor !== 'frontAxle' || chassis === null || !leader?.hitch) return null;
    if (leader.hitch.path !== hitch.path) return null;
    const motion = this.motion(leader);
    const coupled = scaledChassis(leader);
    if (motion === null || coupled === null) return null;
    const gap = motion.sense * (hitch.follows?.gap ?? 0);
    const frame = new Float64Array(12);
    return (s, out) => {
      // The leader whose tail is a gap ahead, by Newton's steps.
      let at = s;
      for (let step = 0; step < 4; step++) {
        const { distance, rate } = motion.placement.tail(at);
        at += (s + gap - distance) / (rate || 1);
      }
      motion.placement.frame(at, frame);
      for (let k = 0; k < 3; k++) out[k] = frame[k] + motion.sense * coupled.rearCoupling * frame[9 + k];
    };
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

function retimedOffset(offset: OffsetAt, { source, rate }: Retiming): OffsetAt {
  return {
    at: (frame) => offset.at(source(frame)),
    alongRate: (frame) => offset.alongRate(source(frame)) * rate(frame),
  };
}

const positionIn = (pose: Float64Array): Vec3 => [pose[0], pose[1], pose[2]];

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
