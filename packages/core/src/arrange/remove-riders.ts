import type { Hitch } from '../document/shot-hitch.js';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import { POSE } from '../pose/pose.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { poseOfRider } from './change-rider.js';
import { withOwnPace } from './own-pace.js';

/**
 * The shot without a rider. What it carried stands where it stood at a frame; what hung behind it hangs behind
 * what it hung behind, as far back as before, or goes on by itself; what took its time keeps it as its own; what
 * aimed at it faces its path; cuts to it, and cues it gives or takes, go.
 */
export function removeRider(shot: Shot, id: string, frame: number): Shot {
  const gone = shot.riders.find((rider) => rider.id === id);
  if (gone === undefined) return shot;
  const riders = shot.riders
    .filter((rider) => rider !== gone)
    .map((rider) =>
      withoutTarget(withoutLeader(shot, setDown(shot, rider, id, frame), gone, new Set([id])), id),
    );
  return {
    ...shot,
    riders,
    cuts: shot.cuts.filter(({ camera }) => camera !== id),
    cues: shot.cues.filter(({ on, does }) => on.rider !== id && on.other !== id && does.rider !== id),
    // One that was for this rider alone is not to become one for all.
    retimes: shot.retimes.flatMap((retime) => {
      if (!retime.riders.includes(id)) return [retime];
      const others = retime.riders.filter((rider) => rider !== id);
      return others.length > 0 ? [{ ...retime, riders: others }] : [];
    }),
  };
}

/** Riders taken off their paths, back to where they rested; what hung behind one or took its time goes on by itself. */
export function detachBack(shot: Shot, ids: readonly string[]): Shot {
  return { ...shot, riders: withoutHitches(shot, new Set(ids)) };
}

/** Riders taken off their paths, left standing where they are at a frame. */
export function detachHere(shot: Shot, ids: readonly string[], frame: number): Shot {
  const off = new Set(ids);
  const riders = withoutHitches(shot, off);
  return { ...shot, riders: riders.map((rider) => (off.has(rider.id) ? atRest(shot, rider, frame) : rider)) };
}

function withoutHitches(shot: Shot, off: ReadonlySet<string>): Rider[] {
  const gone = shot.riders.filter(({ id }) => off.has(id));
  return shot.riders.map((rider) =>
    off.has(rider.id)
      ? { ...rider, hitch: null }
      : gone.reduce((before, leader) => withoutLeader(shot, before, leader, off), rider),
  );
}

function atRest(shot: Shot, rider: Rider, frame: number): Rider {
  const pose = poseOfRider(shot, rider.id, frame);
  const translation: Vec3 = [pose[0], pose[1], pose[2]];
  const rotation = [...pose.subarray(POSE.rotation, POSE.rotation + 4)] as Quat;
  return { ...rider, parent: null, rest: { ...rider.rest, translation, rotation } };
}

function setDown(shot: Shot, rider: Rider, carrier: string, frame: number): Rider {
  if (rider.parent !== carrier) return rider;
  // What rides a path of its own was not carried; only its rest was.
  return rider.hitch === null ? atRest(shot, rider, frame) : { ...rider, parent: null };
}

function withoutLeader(shot: Shot, rider: Rider, gone: Rider, off: ReadonlySet<string>): Rider {
  const { hitch } = rider;
  if (hitch?.pacedBy?.rider === gone.id) return withOwnPace(shot, rider);
  if (hitch?.follows?.rider !== gone.id) return rider;
  const ahead = gone.hitch?.follows;
  if (!ahead || off.has(ahead.rider)) return withOwnPace(shot, rider);
  const { chassis } = gone;
  const length = chassis ? chassis.frontCoupling - chassis.rearCoupling : 0;
  return {
    ...rider,
    hitch: { ...hitch, follows: { rider: ahead.rider, gap: hitch.follows.gap + ahead.gap + length } },
  };
}

function withoutTarget(rider: Rider, id: string): Rider {
  const { hitch } = rider;
  if (hitch?.facing.target?.rider !== id) return rider;
  const facing: Hitch['facing'] = { ...hitch.facing, target: null };
  return { ...rider, hitch: { ...hitch, facing } };
}
