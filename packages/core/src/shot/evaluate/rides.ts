import { vec3 } from 'gl-matrix';
import { axesOf } from '../../document/rider-axes.js';
import { blendingCues, timingCues, turnoutCues } from '../../document/rider-graph.js';
import type { Cue } from '../../document/shot-cue.js';
import type { AimTarget } from '../../document/shot-facing.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Chassis, Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { compiledPaceOf } from '../../motion/pace/compiled-pace-of.js';
import type { CompiledPace, Motion } from '../../motion/pace/compiled-pace.js';
import type { Track } from '../../motion/pace/track.js';
import { heldPace } from '../../motion/pace/held-pace.js';
import { compiledPathOf } from '../../geometry/path/compiled-path-of.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { PathError } from '../../geometry/path/path-error.js';
import { compileOffset, offsetInShownFrames } from '../../motion/pose/keyed-offset.js';
import { withCarriers } from '../../motion/pose/carriers.js';
import { cachedFor } from '../../geometry/math/cached-for.js';
import { pointOn } from '../../motion/pose/point-on.js';
import { POSE, type PoseAt } from '../../motion/pose/pose.js';
import { withShake } from '../../motion/pose/shake.js';
import { compileRestPose } from '../../motion/pose/rest-pose.js';
import type { TargetAt } from '../../motion/ride/aiming.js';
import { compileAxlePlacement, travelSignOf, type AxlePlacement } from '../../motion/ride/axle-placement.js';
import { chassisOf } from '../../motion/ride/chassis.js';
import {
  chassisTrackByDistance,
  chassisTrackByFrames,
  onChassisTrack,
  type ChassisMotion,
  type ChassisTrack,
} from '../../motion/ride/chassis-motion.js';
import { compileGroundFit, type Coupling, type GroundFit } from '../../motion/ride/ground-fit.js';
import { compilePathMotion, followPace, stringPace, type PathMotion } from '../../motion/ride/path-motion.js';
import type { PositionAtFrame } from '../../motion/ride/clearance.js';
import { keptClear } from './kept-clear.js';
import { compileTravel } from '../../motion/ride/travel.js';
import { compileHandPose, handTrackOf } from '../../motion/ride/hand-track.js';
import { compileFollow } from '../../motion/ride/follow.js';
import { withRestAim } from '../../motion/ride/rest-aim.js';
import { referenceOf, ridePath, type RideBlends } from '../../motion/ride/ride-path.js';
import { ridesByDistance } from '../../motion/ride/travel-place.js';
import type { FrameStep } from '../../motion/timing/frame-step.js';
import { headOf, leadingOf, type Leading } from '../../motion/timing/leader.js';
import { inShownFrames, mapFrames } from '../../motion/timing/map-frames.js';
import { lastSource, ownRetimeStep } from '../../motion/timing/retiming.js';
import { cuedBlend, cueMoment, type CueSources } from './cue-values.js';
import { sharedTrack, trackKey, type RiddenTrack } from './ridden-track.js';
import { riderTiming, shownStops, type RiderTiming } from './rider-timing.js';
import { DynamicRiders, dynamicRidersOf } from './dynamic-riders.js';
import { Hanging } from './hanging.js';
import { hierarchyOfRider, type SceneAssets } from './scene-assets.js';
import { frozenPose } from './frozen.js';
import { ENDLESS, turnedOut, turnoutsOf } from './turnouts.js';
import { towedJoints, towingCoupling, towingPin, type Tower } from './towing.js';

/** The rides of a shot, each made once and after those it follows from. In the time of the work. */
export class Rides {
  readonly paths: ReadonlyMap<string, CompiledPath | PathError>;
  private readonly byId: ReadonlyMap<string, Rider>;
  readonly sources: CueSources;

  constructor(
    private readonly shot: Shot,
    private readonly assets: SceneAssets,
  ) {
    this.paths = new Map(shot.paths.map((path) => [path.id, compiledPathOf(path)]));
    this.byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
    this.sources = this.sourcesBy(
      (rider) => this.motion(rider),
      (cue) => this.moment(cue),
    );
  }

  /** How much cues let a rider follow its path and face its way. */
  private readonly blends = cachedFor((rider: Rider): RideBlends => {
    const of = (kind: 'attachment' | 'facing') => cuedBlend(this.shot, rider, kind, this.sources);
    return { attachment: of('attachment'), facing: of('facing') };
  });

  /** Frame at which a cue's value first reaches 1; null if it never does. */
  readonly moment = cachedFor((cue: Cue) => cueMoment(cue, this.shot.range, this.sources));

  private forces: DynamicRiders | null = null;
  private movedByForces: readonly Rider[] | null = null;

  /** Rigid body of a rider; null if it is not dynamic. */
  forced(rider: Rider): DynamicRiders | null {
    const { shot, assets } = this;
    if (rider.rigidBody === null || !assets.physics) return null;
    const riders = (this.movedByForces ??= dynamicRidersOf(shot));
    if (!riders.includes(rider)) return null;
    const by = { shot, assets, last: lastSource(shot), unforced: (of: Rider) => this.unforced(of) };
    return (this.forces ??= new DynamicRiders({ ...by, physics: assets.physics }, riders));
  }

  /** Hanging parts of a rider's model; null if there are none. */
  readonly hanging = cachedFor((rider: Rider): Hanging | null => {
    const hierarchy = rider.hangingParts.length === 0 ? null : hierarchyOfRider(this.assets, rider);
    if (hierarchy === null || rider.frozen !== null) return null;
    return Hanging.of(this.shot, rider, hierarchy, this.pose(rider), lastSource(this.shot));
  });

  /** Simulates all dynamic riders; yields the part that is done. */
  *settle(): Generator<number, void, undefined> {
    const forced = this.shot.riders.map((rider) => this.forced(rider)).find((one) => one !== null);
    const swinging = this.shot.riders.flatMap((rider) => this.hanging(rider) ?? []);
    const runs = [...(forced ? [forced] : []), ...swinging];
    for (const [i, run] of runs.entries()) for (const part of run.settle()) yield (i + part) / runs.length;
  }

  /** Pose of a rider at a frame. */
  readonly pose = cachedFor((rider: Rider): PoseAt => {
    return this.forced(rider)?.pose(rider) ?? this.unforced(rider);
  });

  /** The same without what forces do to it. */
  readonly unforced = cachedFor((rider: Rider): PoseAt => {
    const { fps, loop, range } = this.shot;
    if (rider.frozen !== null) return frozenPose(rider.frozen);
    const seated = this.handed(rider, this.own(rider));
    return rider.shake === null ? seated : withShake(seated, rider.shake, { ...range, fps, loop });
  });

  /** The same by its own motion, without carriers. */
  readonly own = cachedFor((rider: Rider): PoseAt => {
    const { attachment } = rider;
    const parent = this.find(rider.parent);
    const { fps, loop, range } = this.shot;
    const rest = compileRestPose(rider.rest, parent ? this.pose(parent) : null);
    const motion = this.motion(rider);
    if (attachment === null || motion === null) {
      const placed = this.following(rider) ?? this.byHand(rider) ?? rest;
      return this.looking(rider, placed);
    }
    return ridePath(rider, attachment, {
      motion,
      rest,
      target: attachment.facing.mode === 'aim' ? this.target(attachment.facing.target) : null,
      range: { ...range, loop, fps },
      ground: this.groundFit(rider),
      clear: this.away(rider),
      cued: this.blends(rider),
    });
  });

  /** A pose with carrier switches. */
  private handed({ parentKeys }: Rider, own: PoseAt): PoseAt {
    if (parentKeys.length === 0) return own;
    const poses = parentKeys.map(({ rider: id }) => {
      const carrier = this.find(id);
      return carrier ? this.pose(carrier) : null;
    });
    return withCarriers(own, parentKeys, poses, this.shot.fps);
  }

  /** Pose of a rider that follows another; null if it does not. */
  private following({ follow, attachment }: Rider): PoseAt | null {
    const leader = follow && attachment === null ? this.find(follow.rider) : undefined;
    if (!follow || !leader) return null;
    const { fps, loop, range } = this.shot;
    return compileFollow(follow, this.pose(leader), axesOf(leader), { ...range, loop, fps });
  }

  /** Pose of a rider that is moved by hand; null if it is not. */
  private byHand(rider: Rider): PoseAt | null {
    const { transformKeys, attachment } = rider;
    if (transformKeys === null || transformKeys.keys.length === 0 || attachment !== null) return null;
    const parent = this.find(rider.parent);
    const { own, rate } = mapFrames(this.timing(rider)?.steps ?? [], this.shot.range);
    return compileHandPose(
      handTrackOf(transformKeys, this.shot.fps),
      { own, rate },
      parent ? this.pose(parent) : null,
    );
  }

  /** A pose turned to what its rider looks at. */
  private looking(rider: Rider, pose: PoseAt): PoseAt {
    const { restAim } = rider;
    const target = restAim && this.target(restAim.target);
    if (restAim === null || target === null) return pose;
    const { fps, loop, range } = this.shot;
    return withRestAim(pose, rider, restAim, target, { ...range, loop, fps }, this.blends(rider).facing);
  }

  /** How far a rider is led away from what it keeps clear of; null where it keeps clear of nothing. */
  readonly away = cachedFor((rider: Rider): PositionAtFrame | null => {
    const { clearance, attachment } = rider;
    const motion = this.motion(rider);
    if (clearance === null || attachment === null || motion === null) return null;
    const { fps, loop, range } = this.shot;
    const others = clearance.from.flatMap(({ rider: id, distance }) => {
      const other = this.find(id);
      return other === undefined || id === rider.id ? [] : [{ pose: this.pose(other), distance }];
    });
    return keptClear(clearance, compileTravel(attachment, motion, this.groundFit(rider), fps), {
      ground: this.assets.ground,
      others,
      range: { ...range, fps, loop },
    });
  });

  /** Motion of a rider along its path; null if it is not attached. */
  readonly motion = cachedFor((rider: Rider): PathMotion | null => {
    const { attachment } = rider;
    const path = this.ridden(rider);
    if (attachment === null || path === null) return null;
    const leading = this.leading(rider);
    const tower = this.tower(rider);
    const travelSign = this.travelSign(rider, attachment);
    const joints = tower
      ? [...path.joints, ...towedJoints(tower, attachment.coupledTo?.gap ?? 0)]
      : path.joints;
    const placement = compileAxlePlacement(
      path,
      referenceOf(attachment.facing),
      attachment.anchor,
      this.axles(rider),
      travelSign,
      tower && towingPin(tower, attachment.coupledTo?.gap ?? 0),
      joints,
    );
    const bent = mapFrames(ownRetimeStep(this.shot, rider.id), this.shot.range);
    const timing = leading
      ? inShownFrames(this.ledTiming(leading, placement), bent)
      : this.ownTiming(rider, attachment, path);
    const offset = compileOffset(attachment);
    const { before, after } = attachment.pace;
    return compilePathMotion(
      {
        path,
        placement,
        travelSign,
        timing,
        offset: offsetInShownFrames(offset, bent),
        keepsOn:
          path.closed ||
          (!leading && offset.fixed && attachment.offset.along === 0 && before !== 'run' && after !== 'run'),
        byDistance:
          ridesByDistance(attachment) &&
          blendingCues(this.shot.cues, rider.id).length === 0 &&
          rider.clearance === null &&
          (tower?.motion.byDistance ?? true),
        joints,
      },
      this.shot.fps,
    );
  });

  /** Timing of a rider by its own pace; null if it has none. */
  readonly timing = cachedFor((rider: Rider): RiderTiming | null => {
    const pace = this.ownPace(rider);
    if (pace === null) return null;
    const begins = Number.isFinite(pace.from) ? pace.from : (rider.attachment?.pace.start.frame ?? 0);
    const { range } = this.shot;
    const steps: FrameStep[] = [];
    // Only an own pace waits for cues.
    for (const cue of this.leading(rider) ? [] : timingCues(this.shot.cues, rider.id)) {
      const moment = this.moment(cue);
      if (cue.action.kind === 'start') steps.push({ kind: 'start', begins, go: moment });
      else {
        const stop = shownStops(pace.stops, mapFrames(steps, range))[cue.action.stop];
        if (stop) steps.push({ kind: 'stopEnd', from: stop.from, to: stop.to, end: moment });
      }
    }
    steps.push(...ownRetimeStep(this.shot, rider.id));
    return riderTiming(begins, pace.stops, steps, range);
  });

  /** How a rider is set on the ground; null where it is not, or there is none. */
  readonly groundFit = cachedFor((rider: Rider): GroundFit | null => {
    const shared = this.sharedTrack(rider);
    return shared ? shared.groundFit : this.ownGroundFit(rider);
  });

  /** How a rider's chassis moves; null where it rides none. */
  readonly chassis = cachedFor((rider: Rider): ChassisMotion | null => {
    const { attachment } = rider;
    const motion = this.motion(rider);
    if (attachment === null || motion === null) return null;
    return onChassisTrack(this.chassisTrack(rider, attachment, motion), motion, this.shot.fps);
  });

  private chassisTrack(rider: Rider, attachment: Attachment, motion: PathMotion): ChassisTrack {
    const range = { ...this.shot.range, fps: this.shot.fps };
    const shared = this.sharedTrack(rider);
    if (shared) return shared.chassis;
    return motion.byDistance
      ? chassisTrackByDistance(attachment, motion, this.groundFit(rider), range)
      : chassisTrackByFrames(rider, this.pose(rider), range);
  }

  /** The way of a rider that others of its kind go as well; null where it depends on when it is where. */
  private readonly sharedTrack = cachedFor((rider: Rider): RiddenTrack | null => {
    const { attachment } = rider;
    const motion = this.motion(rider);
    if (!attachment || !motion?.byDistance || !(motion.path.closed || motion.keepsOn)) return null;
    const tower = this.tower(rider);
    const towing = tower && this.sharedTrack(tower.rider);
    if (tower && !towing) return null;
    const behind = towing && { way: towing, gap: attachment.coupledTo?.gap ?? 0 };
    const key = trackKey(rider, attachment, this.axles(rider), motion.travelSign, behind);
    return sharedTrack(motion.path, this.assets.ground, key, () => {
      const groundFit = this.ownGroundFit(rider);
      const range = { ...this.shot.range, fps: this.shot.fps };
      return { groundFit, chassis: chassisTrackByDistance(attachment, motion, groundFit, range) };
    });
  });

  private ownGroundFit(rider: Rider): GroundFit | null {
    const { attachment } = rider;
    const motion = this.motion(rider);
    const { ground } = this.assets;
    const sticks = attachment?.ground.mode === 'stick';
    const tilts = attachment?.facing.reference === 'ground' && attachment.facing.mode !== 'keep';
    if (!attachment || !motion || !ground || !(sticks || tilts)) return null;
    return compileGroundFit(
      rider,
      attachment,
      motion,
      ground,
      sticks,
      sticks ? this.coupling(rider, motion) : null,
    );
  }

  /** A rider's axles and couplings, metres of the world. */
  readonly axles = cachedFor((rider: Rider): Chassis | null =>
    chassisOf(rider, hierarchyOfRider(this.assets, rider)?.box ?? null),
  );

  /** A rider's own pace; null where it neither rides a curve nor is moved by hand. */
  private ownPace(rider: Rider): CompiledPace | null {
    const { attachment, transformKeys } = rider;
    if (attachment === null && transformKeys && transformKeys.keys.length > 0)
      return handTrackOf(transformKeys, this.shot.fps).pace;
    const path = this.curveOf(rider.attachment);
    return rider.attachment && path && compiledPaceOf(rider.attachment.pace, this.shot.fps, path);
  }

  /** A rider's own pace as it is travelled, at the frames at which cues and its own retime show it. */
  private ownTiming(rider: Rider, attachment: Attachment, path: CompiledPath, within: Track = path): Motion {
    const own = this.curveOf(attachment) ?? path;
    const held = heldPace(compiledPaceOf(attachment.pace, this.shot.fps, own), attachment.pace, within);
    const steps = this.timing(rider)?.steps ?? [];
    return steps.length === 0 ? held : inShownFrames(held, mapFrames(steps, this.shot.range));
  }

  private ledTiming({ by, leader, attachment }: Leading, placement: AxlePlacement): Motion {
    const motion = this.motion(leader) as PathMotion;
    return by === 'follows' && attachment.coupledTo
      ? stringPace(attachment.coupledTo, motion, placement)
      : followPace(
          attachment.pacedBy as NonNullable<Attachment['pacedBy']>,
          motion.timing,
          this.shot.range.first,
        );
  }

  private leading(rider: Rider): Leading | null {
    return leadingOf(rider, (id) => this.riding(id));
  }

  /**
   * −1 where a rider goes tail first: turned round by its offset, or, where its nose goes where it travels, because most of its way
   * goes back.
   */
  private travelSign(rider: Rider, attachment: Attachment): 1 | -1 {
    const own = travelSignOf(attachment.offset);
    if (attachment.facing.along === 'path') return own;
    const head = headOf(rider, (id) => this.riding(id));
    const path = this.curveOf(head.attachment);
    if (head.attachment === null || path === null) return own;
    const timing = this.ownTiming(head, head.attachment, path);
    const { first, last } = this.shot.range;
    return timing.distance(last) < timing.distance(first) - 1e-9 ? (-own as 1 | -1) : own;
  }

  /** Leader of a towed rider on the same path; null if there is none. */
  private tower(rider: Rider): Tower | null {
    const { attachment } = rider;
    if (attachment?.anchor !== 'frontAxle' || attachment.coupledTo === null || this.axles(rider) === null)
      return null;
    const leader = this.riding(attachment.coupledTo.rider);
    if (leader?.attachment?.path !== attachment.path) return null;
    const motion = this.motion(leader);
    const coupled = this.axles(leader);
    return motion && coupled && { rider: leader, motion, chassis: coupled };
  }

  /** Coupling of a towed rider on its leader's ground; null if it is not towed, or either is moved as a whole. */
  private coupling(rider: Rider, motion: PathMotion): Coupling | null {
    const tower = this.tower(rider);
    const axles = this.axles(rider);
    if (!tower || !axles || rider.attachment?.rideTransform || tower.rider.attachment?.rideTransform)
      return null;
    const leads = this.chassis(tower.rider);
    if (leads === null) return null;
    return towingCoupling(tower, leads, rider.attachment?.coupledTo?.gap ?? 0, motion, axles.frontCoupling);
  }

  /** Target; null if there is none. */
  target(target: AimTarget | null): TargetAt | null {
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
      pointOn(now, part, out);
    };
  }

  /** The curve that a rider rides: its path, or that and those it turns out to; null where it rides none. */
  readonly ridden = cachedFor((rider: Rider): CompiledPath | null => {
    const { attachment } = rider;
    const own = this.curveOf(attachment);
    if (attachment === null || own === null) return null;
    const leading = this.leading(rider);
    // A string goes where its head goes.
    if (leading) return leading.by === 'follows' ? this.ridden(leading.leader) : own;
    const cues = turnoutCues(this.shot.cues, rider.id);
    if (cues.length === 0) return own;
    // By its own way alone, for what turns it out is not to follow from where that takes it; nor are the cues that bring that about.
    const timing = this.ownTiming(rider, attachment, own);
    const moment = cachedFor((cue: Cue): number | null => cueMoment(cue, this.shot.range, sources));
    const sources = this.sourcesBy(
      (other) => (other === rider ? { pace: timing } : this.motion(other)),
      moment,
    );
    const turnouts = turnoutsOf(cues, this.paths, moment);
    return turnedOut(own, this.ownTiming(rider, attachment, own, ENDLESS), turnouts, this.shot.range);
  });

  private curveOf(attachment: Attachment | null): CompiledPath | null {
    const path = attachment && this.paths.get(attachment.path);
    return path && !(path instanceof PathError) ? path : null;
  }

  /** Sources of cues: how riders move and when cues come. */
  private sourcesBy(motion: CueSources['motion'], moment: (cue: Cue) => number | null): CueSources {
    return {
      find: (id) => this.find(id),
      motion,
      pose: (rider) => this.pose(rider),
      stops: (rider) => this.timing(rider)?.stops ?? [],
      momentOf: (id) => {
        const cue = this.shot.cues.find((one) => one.id === id);
        return cue === undefined || cue.off ? null : moment(cue);
      },
      fps: this.shot.fps,
    };
  }

  private find(id: string | null): Rider | undefined {
    return id === null ? undefined : this.byId.get(id);
  }

  /** A rider that rides a curve. */
  private riding(id: string): Rider | undefined {
    const rider = this.find(id);
    return rider && this.curveOf(rider.attachment) ? rider : undefined;
  }
}
