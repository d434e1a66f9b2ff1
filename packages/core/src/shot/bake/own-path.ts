import { withRider } from '../edits/change-rider.js';
import { defaultsOf } from '../../document/defaults.js';
import { freeId, freeName } from '../../document/free-name.js';
import { PaceKey } from '../../document/shot-pace.js';
import { ShotPath } from '../../document/shot-path.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { positionIn, POSE } from '../../motion/pose/pose.js';
import { rideFromMotion } from '../../geometry/reshape/ride-from-motion.js';
import { newAttachment } from '../../motion/ride/new-attachment.js';
import { handTrackOf, pathThrough } from '../../motion/ride/hand-track.js';
import { mapFrames } from '../../motion/timing/map-frames.js';
import { risingFrames } from '../../motion/timing/rising-frames.js';
import { withTurnOf } from './keep-turn.js';
import { sampleRider } from './sample-shot.js';
import { isDynamic, withoutForces } from './without-forces.js';
import { frameOfSample, workTime } from './work-samples.js';

/** A rider with its own path. */
export interface OwnPath {
  readonly shot: Shot;
  readonly pathId: string;
}

/**
 * A rider with its own path that keeps its motion: one of a flight, a carried one, one moved by hand. Keys by hand
 * give the very curve that they made; any other motion is kept within a tolerance, with its rotation.
 *
 * @param within metres, above 0
 * @throws PathError where it never moves
 */
export function withOwnPath(shot: Shot, assets: SceneAssets, id: string, within: number): OwnPath {
  const rider = shot.riders.find((one) => one.id === id);
  if (rider === undefined) throw new Error(`There is no rider "${id}".`);
  const name = freeName(`${rider.badge} ${rider.name}`.trim(), shot.paths);
  const pathId = freeId(name, shot.paths);
  const exact = isDynamic(rider, assets) ? null : exactTrack(shot, rider);
  const own = exact ?? sampledTrack(shot, assets, rider, within);
  const path = { ...own.path, id: pathId, name };
  const before = rider.attachment ?? newAttachment(pathId, shot.range);
  const pace: Attachment['pace'] = {
    ...newAttachment(pathId, shot.range).pace,
    unit: 'metres',
    // Nothing else uses its own path: a bend made in it is ridden at about the former speed.
    stretches: true,
    keys: [...own.keys],
  };
  const attachment: Attachment = {
    ...before,
    path: pathId,
    // Its offset from the old path, or from a leader, is in the new path.
    anchor: 'origin',
    offset: { ...before.offset, along: 0, side: 0, rise: 0 },
    offsetKeys: [],
    influence: [],
    coupledTo: null,
    pacedBy: null,
    rideTransform: null,
    takes: [],
    pace,
  };
  const changed = withRider({ ...shot, paths: [...shot.paths, path] }, id, (one) => ({
    ...one,
    parent: null,
    transformKeys: null,
    restAim: null,
    follow: null,
    frozen: null,
    clearance: null,
    ...withoutForces(one, assets),
    // Shake and carriers during the bake are in its path.
    ...(exact === null ? { shake: null, parentKeys: [] } : {}),
    attachment,
  }));
  return { shot: withTurnOf(changed, shot, assets, id), pathId };
}

interface Way {
  readonly path: ShotPath;
  readonly keys: readonly PaceKey[];
}

/** The very curve that keys by hand make in the world; null for any other motion. */
function exactTrack(shot: Shot, { transformKeys, parent, attachment, frozen }: Rider): Way | null {
  if (
    attachment !== null ||
    frozen !== null ||
    parent !== null ||
    transformKeys === null ||
    transformKeys.keys.length < 2
  )
    return null;
  const { curve } = handTrackOf(transformKeys, shot.fps);
  if (curve === null) return null;
  return {
    path: {
      ...defaultsOf(ShotPath),
      id: 'own',
      name: 'own',
      ...pathThrough(transformKeys.keys.map((key) => key.translation)),
    },
    keys: transformKeys.keys.map(({ frame, ease }, i) => ({
      ...defaultsOf(PaceKey),
      frame,
      ease,
      value: curve.pointDistances[i],
    })),
  };
}

function sampledTrack(shot: Shot, assets: SceneAssets, rider: Rider, within: number): Way {
  const time = workTime(shot, assets);
  const index = shot.riders.indexOf(rider);
  const poses = sampleRider(time.evaluated.poses[index], time.first, time.count, time.step);
  // Cues and retimes act on it as before: its keys are in its own frames.
  const { own } = mapFrames(time.evaluated.timing(rider)?.steps ?? [], shot.range);
  const samples = Array.from({ length: time.count }, (_, i) => frameOfSample(time, i));
  const kept = risingFrames(samples, own);
  const frames = kept.map((i) => own(samples[i]));
  const places = kept.flatMap((i) => positionIn(poses, i * POSE.size));
  return rideFromMotion(rider.name, frames, Float64Array.from(places), within, 'curved');
}
