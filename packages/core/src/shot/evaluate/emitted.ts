import { mat4, vec3 } from 'gl-matrix';
import { axesOf } from '../../document/rider-axes.js';
import type { Emitter } from '../../document/shot-emitter.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import {
  LOCAL,
  initialPose,
  nodeNamed,
  type NodeHierarchy,
} from '../../character/hierarchy/node-hierarchy.js';
import type { MovedParts } from '../../character/hierarchy/node-driver.js';
import { partsOf, placeNodes, withAllAbove } from '../../character/hierarchy/model-space.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { axisVector } from '../../motion/pose/axes.js';
import { pointOn } from '../../motion/pose/point-on.js';
import { POSE, positionIn, rotationIn, type PoseAt } from '../../motion/pose/pose.js';
import { compileSpray, writePlace, type EmitterAt } from '../../effects/spray/births.js';
import type { Spray } from '../../effects/spray/spray.js';
import { lastSource } from '../../motion/timing/retiming.js';
import { newMat4 } from '../../geometry/math/new-matrix.js';

/** Motion of a rider that sprays, in the time of the work. */
export interface SprayingRider {
  readonly pose: PoseAt;
  readonly parts: MovedParts;
  /** In its model's rest pose; null if not known. */
  readonly hierarchy: NodeHierarchy | null;
  /** Whether it is seen; null where it always is. */
  readonly shows: ((frame: number) => boolean) | null;
  /** The frame at which a cue acts; null where it never does. */
  moment(cue: string): number | null;
}

/** All that a rider sprays; in the time of the work. */
export function sprayOf(shot: Shot, rider: Rider, emitter: Emitter, by: SprayingRider): Spray {
  const { first, last } = shot.range;
  const { forward, up } = axesOf(rider);
  const across = vec3.cross([0, 0, 0], axisVector(up), axisVector(forward)) as Vec3;
  const origin: EmitterAt = (frame, out) => {
    by.pose(frame, pose, 0);
    writePlace(out, positionIn(pose), rotationIn(pose));
  };
  return compileSpray(emitter, {
    outlets: outletsOf(rider, emitter, by, origin),
    rider: origin,
    across,
    first,
    last: lastSource(shot),
    cycle: shot.loop ? last - first + 1 : null,
    fps: shot.fps,
    shows: by.shows,
    bursts: emitter.bursts.flatMap(({ frame, cue, count }) => {
      const at = cue === null ? frame : by.moment(cue);
      return at === null ? [] : [{ frame: at, count }];
    }),
  });
}

function outletsOf(
  rider: Rider,
  { from, node }: Emitter,
  { pose: poseAt, parts, hierarchy }: SprayingRider,
  origin: EmitterAt,
): EmitterAt[] {
  const { scale } = rider.rest;
  if (from === 'wheels' && rider.wheels.length > 0) {
    const { up } = axesOf(rider);
    const down = axisVector(up);
    return rider.wheels.map(({ centre, radius }): EmitterAt => {
      const touch = centre.map((value, k) => (value - radius * down[k]) * scale[k]) as Vec3;
      return (frame, out) => {
        poseAt(frame, pose, 0);
        writePlace(out, pointOn(pose, touch), rotationIn(pose));
      };
    });
  }
  const posed = parts.jointed?.hierarchy ?? hierarchy;
  const index = from === 'part' && posed ? nodeNamed(posed, node) : -1;
  if (posed === null || index < 0) return [origin];
  const above = withAllAbove(posed, [index]);
  const rest = initialPose(posed).locals;
  const locals = rest.slice();
  const space = new Float64Array(16 * posed.nodes.length);
  const moved = new Float64Array(parts.size);
  return [
    (frame, out) => {
      parts.pose(frame, moved, 0);
      for (const { index: of, at } of parts.nodes)
        for (let k = 0; k < LOCAL.size; k++) locals[of * LOCAL.size + k] = moved[at + k];
      placeNodes(posed, above, locals, space);
      poseAt(frame, pose, 0);
      const rider = mat4.fromRotationTranslationScale(newMat4(), rotationIn(pose), positionIn(pose), scale);
      const part = [...space.subarray(16 * index, 16 * index + 16)] as unknown as mat4;
      const { translation, rotation } = partsOf(mat4.multiply(newMat4(), rider, part));
      writePlace(out, translation, rotation as Quat);
    },
  ];
}

const pose = new Float64Array(POSE.size);
