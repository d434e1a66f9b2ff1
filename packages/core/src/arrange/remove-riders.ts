import { withoutLooseBursts } from './loose-bursts.js';
import type { Cue } from '../document/shot-cue.js';
import type { Hitch } from '../document/shot-hitch.js';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import { evaluateShot, type EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { positionIn, rotationIn } from '../pose/pose.js';
import { couplingLength } from '../ride/chassis.js';
import { leaderIdOf } from '../timing/leader.js';
import { poseOfRider } from './change-rider.js';
import { inSpaceOf } from './in-space-of.js';
import { withOwnPace } from './own-pace.js';

/**
 * The shot without a rider. What it carried stands where it stood at a frame; what hung behind it hangs behind
 * what it hung behind, as far back as before, or goes on by itself; what took its time keeps it as its own; what
 * aimed at it faces its path, and nothing keeps clear of it; cuts to it, and cues it gives or takes, go.
 */
export function removeRider(shot: Shot, assets: SceneAssets, id: string, frame: number): Shot {
  const gone = shot.riders.find((rider) => rider.id === id);
  if (gone === undefined) return shot;
  const evaluated = evaluateShot(shot, assets);
  const riders = shot.riders
    .filter((rider) => rider !== gone)
    .map((rider) =>
      withoutClearance(
        withoutTarget(
          withoutLeader(evaluated, setDown(evaluated, rider, id, frame), gone, new Set([id])),
          id,
        ),
        id,
      ),
    );
  return withoutLooseBursts({
    ...shot,
    riders,
    cuts: shot.cuts.filter(({ camera }) => camera !== id),
    cues: cuesWithout(shot.cues, id),
    formations: shot.formations.flatMap((formation) => {
      const members = formation.members.map((member) => (member === id ? null : member));
      const left = formation.leader !== id && members.some((member) => member !== null);
      return left ? [{ ...formation, members }] : [];
    }),
    // One that was for this rider alone is not to become one for all.
    retimes: shot.retimes.flatMap((retime) => {
      if (!retime.riders.includes(id)) return [retime];
      const others = retime.riders.filter((rider) => rider !== id);
      return others.length > 0 ? [{ ...retime, riders: others }] : [];
    }),
  });
}

/** Cues that neither listen to a rider nor act on it; of one that does several things the others stay. */
function cuesWithout(cues: readonly Cue[], id: string): Cue[] {
  const left = cues.flatMap((cue): Cue[] => {
    if (cue.on.rider === id || cue.on.other === id) return [];
    const [does, ...also] = [cue.does, ...cue.also].filter(({ rider }) => rider !== id);
    if (does === undefined) return [];
    return does === cue.does && also.length === cue.also.length ? [cue] : [{ ...cue, does, also }];
  });
  const listening = left.filter(({ on }) => on.kind !== 'cue' || left.some((other) => other.id === on.cue));
  return listening.length === cues.length ? listening : cuesWithout(listening, id);
}

/** Riders taken off their paths, back to where they rested; what hung behind one or took its time goes on by itself. */
export function detachBack(shot: Shot, assets: SceneAssets, ids: readonly string[]): Shot {
  return { ...shot, riders: withoutHitches(evaluateShot(shot, assets), new Set(ids)) };
}

/** Riders taken off their paths, left standing just where they are seen at a frame. */
export function detachHere(shot: Shot, assets: SceneAssets, ids: readonly string[], frame: number): Shot {
  const off = new Set(ids);
  const evaluated = evaluateShot(shot, assets);
  const riders = withoutHitches(evaluated, off).map((rider) =>
    off.has(rider.id) ? atRest(evaluated, rider, frame) : rider,
  );
  return { ...shot, riders };
}

function withoutHitches(evaluated: EvaluatedShot, off: ReadonlySet<string>): Rider[] {
  const { riders } = evaluated.shot;
  const gone = new Map(riders.filter(({ id }) => off.has(id)).map((rider) => [rider.id, rider]));
  return riders.map((rider) => {
    if (off.has(rider.id)) return { ...rider, hitch: null };
    const leader = rider.hitch && gone.get(leaderIdOf(rider.hitch) ?? '');
    return leader ? withoutLeader(evaluated, rider, leader, off) : rider;
  });
}

function atRest(evaluated: EvaluatedShot, rider: Rider, frame: number): Rider {
  const pose = poseOfRider(evaluated, rider.id, frame);
  const rest = { ...rider.rest, translation: positionIn(pose), rotation: rotationIn(pose) };
  // What it did by hand before it rode would take it away again.
  return { ...rider, parent: null, stood: null, rest, keyed: null, echo: null };
}

function setDown(evaluated: EvaluatedShot, rider: Rider, carrier: string, frame: number): Rider {
  // What went after it stands where it was.
  if (rider.echo?.rider === carrier)
    return rider.hitch === null ? atRest(evaluated, rider, frame) : { ...rider, echo: null };
  if (rider.parent !== carrier) return rider;
  // What rides a path of its own was not carried; only its rest was.
  if (rider.hitch !== null) return { ...rider, parent: null };
  return { ...inSpaceOf(rider, poseOfRider(evaluated, carrier, frame), null), parent: null, stood: null };
}

function withoutLeader(evaluated: EvaluatedShot, rider: Rider, gone: Rider, off: ReadonlySet<string>): Rider {
  const { hitch } = rider;
  if (hitch?.pacedBy?.rider === gone.id) return withOwnPace(evaluated, rider);
  if (hitch?.follows?.rider !== gone.id) return rider;
  const ahead = gone.hitch?.follows;
  if (!ahead || off.has(ahead.rider)) return withOwnPace(evaluated, rider);
  // The string closes up no further than it was: the gap takes the place of the unit that goes.
  const gap = hitch.follows.gap + ahead.gap + couplingLength(evaluated.axles(gone));
  return { ...rider, hitch: { ...hitch, follows: { rider: ahead.rider, gap } } };
}

function withoutClearance(before: Rider, id: string): Rider {
  const carriers = before.carriers.filter((key) => key.rider !== id);
  const rider = carriers.length === before.carriers.length ? before : { ...before, carriers };
  const { clearance } = rider;
  if (!clearance?.from.some((one) => one.rider === id)) return rider;
  return { ...rider, clearance: { ...clearance, from: clearance.from.filter((one) => one.rider !== id) } };
}

function withoutTarget(rider: Rider, id: string): Rider {
  const { hitch, looks } = rider;
  if (looks?.target?.rider === id) return withoutTarget({ ...rider, looks: null }, id);
  if (hitch?.facing.target?.rider !== id) return rider;
  const facing: Hitch['facing'] = { ...hitch.facing, target: null };
  return { ...rider, hitch: { ...hitch, facing } };
}
