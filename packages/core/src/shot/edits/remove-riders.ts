import { withoutLooseBursts } from './loose-bursts.js';
import type { Cue } from '../../document/shot-cue.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot, type EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { positionIn, rotationIn } from '../../motion/pose/pose.js';
import { couplingLength } from '../../motion/ride/chassis.js';
import { leaderIdOf } from '../../motion/timing/leader.js';
import { poseOfRider } from './change-rider.js';
import { inSpaceOf } from './in-space-of.js';
import { withOwnPace } from './own-pace.js';

/**
 * The shot without a rider. Riders on it stay at their positions at a frame; those coupled behind it are coupled to
 * its leader at the same distance, or get their own pace; those with its pace keep it as their own; those that aimed
 * at it face their path, and clearances from it are removed; cuts to it, and cues from or to it, are deleted.
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

/** Cues that neither listen to a rider nor act on it; of one with several actions the others stay. */
function cuesWithout(cues: readonly Cue[], id: string): Cue[] {
  const left = cues.flatMap((cue): Cue[] => {
    if (cue.trigger.rider === id || cue.trigger.other === id) return [];
    const [does, ...also] = [cue.action, ...cue.moreActions].filter(({ rider }) => rider !== id);
    if (does === undefined) return [];
    return does === cue.action && also.length === cue.moreActions.length
      ? [cue]
      : [{ ...cue, action: does, moreActions: also }];
  });
  const listening = left.filter(
    ({ trigger }) => trigger.kind !== 'cue' || left.some((other) => other.id === trigger.cue),
  );
  return listening.length === cues.length ? listening : cuesWithout(listening, id);
}

/** Riders taken off their paths, back to where they rested; what hung behind one or took its time goes on by itself. */
export function detachBack(shot: Shot, assets: SceneAssets, ids: readonly string[]): Shot {
  return { ...shot, riders: withoutAttachments(evaluateShot(shot, assets), new Set(ids)) };
}

/** Riders taken off their paths, left standing just where they are seen at a frame. */
export function detachHere(shot: Shot, assets: SceneAssets, ids: readonly string[], frame: number): Shot {
  const off = new Set(ids);
  const evaluated = evaluateShot(shot, assets);
  const riders = withoutAttachments(evaluated, off).map((rider) =>
    off.has(rider.id) ? atRest(evaluated, rider, frame) : rider,
  );
  return { ...shot, riders };
}

function withoutAttachments(evaluated: EvaluatedShot, off: ReadonlySet<string>): Rider[] {
  const { riders } = evaluated.shot;
  const gone = new Map(riders.filter(({ id }) => off.has(id)).map((rider) => [rider.id, rider]));
  return riders.map((rider) => {
    if (off.has(rider.id)) return { ...rider, attachment: null };
    const leader = rider.attachment && gone.get(leaderIdOf(rider.attachment) ?? '');
    return leader ? withoutLeader(evaluated, rider, leader, off) : rider;
  });
}

function atRest(evaluated: EvaluatedShot, rider: Rider, frame: number): Rider {
  const pose = poseOfRider(evaluated, rider.id, frame);
  const rest = { ...rider.rest, translation: positionIn(pose), rotation: rotationIn(pose) };
  // Its former hand keys would move it away again.
  return { ...rider, parent: null, restBeforeParent: null, rest, transformKeys: null, follow: null };
}

function setDown(evaluated: EvaluatedShot, rider: Rider, carrier: string, frame: number): Rider {
  // Followers stay where they were.
  if (rider.follow?.rider === carrier)
    return rider.attachment === null ? atRest(evaluated, rider, frame) : { ...rider, follow: null };
  if (rider.parent !== carrier) return rider;
  // A rider on its own path was not carried; only its rest pose was.
  if (rider.attachment !== null) return { ...rider, parent: null };
  return {
    ...inSpaceOf(rider, poseOfRider(evaluated, carrier, frame), null),
    parent: null,
    restBeforeParent: null,
  };
}

function withoutLeader(evaluated: EvaluatedShot, rider: Rider, gone: Rider, off: ReadonlySet<string>): Rider {
  const { attachment } = rider;
  if (attachment?.pacedBy?.rider === gone.id) return withOwnPace(evaluated, rider);
  if (attachment?.coupledTo?.rider !== gone.id) return rider;
  const ahead = gone.attachment?.coupledTo;
  if (!ahead || off.has(ahead.rider)) return withOwnPace(evaluated, rider);
  // The string closes up no further than it was: the gap takes the place of the unit that goes.
  const gap = attachment.coupledTo.gap + ahead.gap + couplingLength(evaluated.axles(gone));
  return { ...rider, attachment: { ...attachment, coupledTo: { rider: ahead.rider, gap } } };
}

function withoutClearance(before: Rider, id: string): Rider {
  const parentKeys = before.parentKeys.filter((key) => key.rider !== id);
  const rider: Rider = parentKeys.length === before.parentKeys.length ? before : { ...before, parentKeys };
  const { clearance } = rider;
  if (!clearance?.from.some((one) => one.rider === id)) return rider;
  return { ...rider, clearance: { ...clearance, from: clearance.from.filter((one) => one.rider !== id) } };
}

function withoutTarget(rider: Rider, id: string): Rider {
  const { attachment, restAim } = rider;
  if (restAim?.target?.rider === id) return withoutTarget({ ...rider, restAim: null }, id);
  if (attachment?.facing.target?.rider !== id) return rider;
  const facing: Attachment['facing'] = { ...attachment.facing, target: null };
  return { ...rider, attachment: { ...attachment, facing } };
}
