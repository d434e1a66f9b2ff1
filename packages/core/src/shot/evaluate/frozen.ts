import { quat } from 'gl-matrix';
import type { Frozen, FrozenTrack } from '../../document/shot-frozen.js';
import type { Rider } from '../../document/shot-rider.js';
import { LOCAL, nodeNamed, type NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import { NO_PARTS, type MovedNode, type MovedParts } from '../../character/hierarchy/node-driver.js';
import { lastAtMost } from '../../geometry/math/search.js';
import type { Quat } from '../../geometry/math/vec.js';
import { POSE, type PoseAt } from '../../motion/pose/pose.js';
import { withWheelJoints } from './moved-parts.js';

/** Writes what a track has at a frame: straight between samples, turns by the shorter way; held beyond its ends. */
type TrackAt = (frame: number, out: Float64Array, at: number) => void;

function trackAt({ frames, values }: FrozenTrack, width: number, turns = false): TrackAt {
  const last = frames.length - 1;
  const from: Quat = [0, 0, 0, 1];
  const to: Quat = [0, 0, 0, 1];
  return (frame, out, at) => {
    const i = lastAtMost(frames, frame);
    const next = Math.min(last, i + 1);
    const part = next === i ? 0 : Math.max(0, (frame - frames[i]) / (frames[next] - frames[i]));
    if (!turns) {
      for (let k = 0; k < width; k++) {
        const value = values[width * i + k];
        out[at + k] = value + part * (values[width * next + k] - value);
      }
      return;
    }
    for (let k = 0; k < 4; k++) {
      from[k] = values[4 * i + k];
      to[k] = values[4 * next + k];
    }
    quat.slerp(from, from, to, part);
    for (let k = 0; k < 4; k++) out[at + k] = from[k];
  };
}

/** Pose of a frozen rider, by the frames of the work. */
export function frozenPose({ translation, rotation, figures }: Frozen): PoseAt {
  const place = trackAt(translation, 3);
  const turn = trackAt(rotation, 4, true);
  const board = trackAt(figures, 3);
  return (frame, out, at) => {
    place(frame, out, at + POSE.translation);
    turn(frame, out, at + POSE.rotation);
    board(frame, out, at + POSE.distance);
  };
}

/** Poses of a frozen rider's parts; parts that the model no longer has are left out. */
export function frozenParts(rider: Rider, { parts }: Frozen, model: NodeHierarchy): MovedParts {
  const jointed = withWheelJoints(model, rider);
  let size = 0;
  const tracks: { readonly at: number; readonly write: TrackAt }[] = [];
  const nodes = parts.flatMap((part): MovedNode[] => {
    const index = nodeNamed(jointed.hierarchy, part.node);
    if (index < 0) return [];
    const at = size;
    const weights = part.weights ? part.weights.values.length / part.weights.frames.length : 0;
    tracks.push(
      { at: at + LOCAL.translation, write: trackAt(part.translation, 3) },
      { at: at + LOCAL.rotation, write: trackAt(part.rotation, 4, true) },
      { at: at + LOCAL.scale, write: trackAt(part.scale, 3) },
    );
    if (part.weights) tracks.push({ at: at + LOCAL.size, write: trackAt(part.weights, weights) });
    size += LOCAL.size + weights;
    return [{ name: part.node, index, at, weights }];
  });
  if (nodes.length === 0) return NO_PARTS;
  return {
    nodes,
    joints: jointed.joints,
    size,
    jointed,
    pose(frame, out, at) {
      for (const { at: own, write } of tracks) write(frame, out, at + own);
    },
  };
}
