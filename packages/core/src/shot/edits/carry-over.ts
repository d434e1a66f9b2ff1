import { quat, vec3 } from 'gl-matrix';
import type { Facing } from '../../document/shot-facing.js';
import type { Attachment, Offset } from '../../document/shot-attachment.js';
import type { Pace, SpeedKey } from '../../document/shot-pace.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { metresPerValue } from '../../motion/pace/change-unit.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { anglesOf, offsetRotation } from '../../motion/pose/offset-rotation.js';

/**
 * How distances of one path became distances of another along the same curve: a distance s of the old path is
 * `sign · s + shift` of the new one.
 */
export interface PathChange {
  readonly from: CompiledPath;
  readonly to: CompiledPath;
  /** The id of the path that is ridden from now on. */
  readonly path: string;
  readonly sign: 1 | -1;
  readonly shift: number;
}

/**
 * An attachment that keeps its rider's positions and rotations at every frame after its path was reversed, started
 * elsewhere, cut or joined. On a reversed path it travels backward, so it is yawed by half a turn: its nose keeps its
 * direction.
 *
 * @param s a distance along the old path at which both paths can be compared, metres
 */
export function carryOver(attachment: Attachment, change: PathChange, s: number): Attachment {
  const { facing } = attachment;
  return {
    ...attachment,
    path: change.path,
    facing: { ...facing, ahead: change.sign * facing.ahead || 0 },
    offset: carryOffset(attachment.offset, attachment.facing, change, s),
    offsetKeys: attachment.offsetKeys.map((key) => ({
      ...key,
      ...carryOffset(key, attachment.facing, change, s),
    })),
    pace: carryPace(attachment.pace, change),
  };
}

function carryOffset(offset: Offset, facing: Facing, change: PathChange, s: number): Offset {
  const { sign } = change;
  const half = sign < 0 && facing.mode !== 'keep' ? 180 : 0;
  const flipped: Offset = {
    ...offset,
    along: sign * offset.along || 0,
    side: sign * offset.side || 0,
    yaw: offset.yaw > 0 ? offset.yaw - half : offset.yaw + half,
  };
  // The twist-free frame begins anew where its path begins: it differs by a turn that is the same all along.
  const turn = facing.reference === 'path' ? headingChangeAt(change, s) : 0;
  if (Math.abs(turn) < 1e-9) return flipped;
  const about = quat.setAxisAngle([0, 0, 0, 1], [0, 0, 1], turn);
  const [side, rise] = vec3.transformQuat([0, 0, 0], [flipped.side, flipped.rise, 0], about);
  const rotation = quat.multiply([0, 0, 0, 1], about, offsetRotation(flipped)) as Quat;
  return { ...flipped, side, rise, ...anglesOf(rotation) };
}

/** The turn about forward that takes the new path's frame to the old one's, radians. */
function headingChangeAt({ from, to, sign, shift }: PathChange, s: number): number {
  const before = new Float64Array(12);
  const after = new Float64Array(12);
  from.frame(s, before, 0, 'path');
  to.frame(sign * s + shift, after, 0, 'path');
  const row = (frame: Float64Array, at: number): Vec3 => [frame[at], frame[at + 1], frame[at + 2]];
  const left = vec3.scale([0, 0, 0], row(before, 3), sign) as Vec3;
  return Math.atan2(vec3.dot(left, row(after, 6)), vec3.dot(left, row(after, 3)));
}

function carryPace(pace: Pace, { from, to, sign, shift }: PathChange): Pace {
  const worth = metresPerValue(pace, to);
  const scale = (sign * metresPerValue(pace, from)) / worth;
  const moved = shift / worth;
  const value = (old: number) => scale * old + moved || 0;
  const slope = ([frames, rise]: [number, number]): [number, number] => [frames, scale * rise || 0];
  const distance = (old: number) => sign * old + shift || 0;
  const speeds = pace.speeds.map((key): SpeedKey => ({
    ...key,
    ...(key.distance === undefined ? {} : { distance: distance(key.distance) }),
    speed: sign * key.speed || 0,
  }));
  const byDistance = speeds[0]?.distance !== undefined;
  return {
    ...pace,
    keys: pace.keys.map((key) => ({
      ...key,
      value: value(key.value),
      in: slope(key.in),
      out: slope(key.out),
    })),
    speeds: byDistance && sign < 0 ? speeds.reverse() : speeds,
    drive: {
      ...pace.drive,
      stops: pace.drive.stops.map((stop) => ({ ...stop, distance: distance(stop.distance) })),
      zones: pace.drive.zones.map((zone) => {
        const ends = [distance(zone.from), distance(zone.to)];
        return sign > 0 ? { ...zone, from: ends[0], to: ends[1] } : { ...zone, from: ends[1], to: ends[0] };
      }),
    },
    start: { ...pace.start, value: value(pace.start.value) },
  };
}
