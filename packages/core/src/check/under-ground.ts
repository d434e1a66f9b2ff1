import type { GroundAround, GroundSurface } from '../geometry/ground/ground-surface.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { POSE } from '../motion/pose/pose.js';
import { carriedPart } from '../motion/pose/carriers.js';
import { pointOn } from '../motion/pose/point-on.js';
import { sourceFrame } from '../motion/timing/retiming.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { bodyContactOf, type BodyContact } from './body-contact.js';
import { aboutStretch } from './about-stretch.js';
import { framesText, stretchesOver } from './stretches.js';

/** Ground counts as near where it is no further down than this, metres. */
const NEAR = 1;
/** Heights under wheels are averaged over them, so they may be off by this part of a radius. */
const EVENED = 0.25;

/** Riders below the ground; and vehicles and characters above it that should be on it. */
export function findOffGround(look: RiderLook): RawFinding[] {
  const { rider, evaluated } = look;
  const { ground } = evaluated.assets;
  // A carried rider goes where its carrier goes.
  if (ground === null || !look.moves || rider.parent !== null) return [];
  if (rider.camera !== null) return cameraUnder(look, ground);
  const standing = bodyContactOf(look);
  if (standing === null) return [];
  const heights = heightsOver(look, ground, standing);
  return [...under(look, standing, heights), ...over(look, standing, heights)];
}

/** By frame how far the lowest place is below the ground it is in, and how far the lowest is above the ground under it. */
interface Heights {
  readonly depth: Float64Array;
  readonly rise: Float64Array;
}

function heightsOver(look: RiderLook, ground: GroundSurface, { places, on }: BodyContact): Heights {
  const { count, poses } = look;
  const depth = new Float64Array(count);
  const rise = new Float64Array(count).fill(NaN);
  const place: Vec3 = [0, 0, 0];
  const carried = carriedPart(look.rider.parentKeys, look.fps);
  const tall = on === 'feet' ? FIGURE : Math.max(1, ...places.map((one) => Math.hypot(...one)));
  for (let i = 0; i < count; i++) {
    if (carried !== null && carried(sourceFrame(look.evaluated.shot, look.first + i)) > 0) continue;
    const pose = poses.subarray(look.at(i), look.at(i) + POSE.size);
    for (const own of places) {
      pointOn(pose, own, place);
      ground.around(place[0], place[1], place[2], around);
      const deep = depthIn(around, place[1], tall);
      if (deep > depth[i]) depth[i] = deep;
      const high = deep > 0 ? -deep : place[1] - around.floor;
      if (!(high >= rise[i])) rise[i] = high;
    }
  }
  return { depth, rise };
}

/** Height of a figure: ground between its feet and its head is ground it is in, metres. */
const FIGURE = 1.7;
const around: GroundAround = { above: NaN, aboveFacesUp: false, floor: NaN };

/**
 * Depth of a point in the ground. Ground above it counts if it faces up, and is either the only ground, or so near
 * that the thing at the point reaches through: else the point is under a bridge.
 */
function depthIn({ above, aboveFacesUp, floor }: GroundAround, y: number, tall: number): number {
  if (!aboveFacesUp) return 0;
  const deep = above - y;
  return Number.isNaN(floor) || deep <= tall ? deep : 0;
}

function under(look: RiderLook, { on, evens }: BodyContact, { depth }: Heights): RawFinding[] {
  const { rider, limits } = look;
  const { attachment } = rider;
  const sticks = attachment?.ground.mode === 'stick';
  const limit = sticks ? Math.max(limits.under, EVENED * evens) : limits.under;
  return stretchesOver(look, look.count, limit, (i) => depth[i]).map(({ worst, frame, ...frames }) =>
    found(
      'under-ground',
      'fault',
      aboutStretch(
        look,
        { ...frames, frame, worst },
        'm',
        attachment === null ? null : on === 'underside' || sticks ? 'lift' : 'stick',
      ),
      ({ rider: badge }) =>
        `${badge(rider.id)} is under the ground: ${WHAT[on]} ${worst.toFixed(2)} m deep at frame ${frame}; ${framesText(frames)}.`,
    ),
  );
}

const WHAT: Readonly<Record<BodyContact['on'], string>> = {
  wheels: 'a wheel is',
  ball: 'its ball is',
  feet: 'its feet are',
  underside: 'its underside is',
};

function over(look: RiderLook, { on, evens }: BodyContact, { rise }: Heights): RawFinding[] {
  const { rider, limits } = look;
  const { attachment, kind } = rider;
  if ((kind !== 'vehicle' && kind !== 'character') || attachment === null) return [];
  const sticks = attachment.ground.mode === 'stick';
  const near = (i: number) => (rise[i] <= NEAR ? rise[i] : NaN);
  const limit = sticks ? Math.max(limits.over, EVENED * evens) : limits.over;
  return stretchesOver(look, look.count, limit, near).map(({ worst, frame, ...frames }) =>
    found(
      'off-ground',
      'warning',
      aboutStretch(look, { ...frames, frame, worst }, 'm', sticks ? 'ride-lower' : 'stick'),
      ({ rider: badge }) =>
        `${badge(rider.id)} floats: ${WHAT[on]} ${worst.toFixed(2)} m above the ground at frame ${frame}; ${framesText(frames)}.`,
    ),
  );
}

/** A camera that looks from below the ground. */
function cameraUnder(look: RiderLook, ground: GroundSurface): RawFinding[] {
  const { rider, limits, poses } = look;
  const depth = (i: number) => {
    const at = look.at(i);
    ground.around(poses[at], poses[at + 1], poses[at + 2], around);
    return depthIn(around, poses[at + 1], 0);
  };
  return stretchesOver(look, look.count, limits.under, depth).map(({ worst, frame, ...frames }) =>
    found(
      'camera-under-ground',
      'warning',
      aboutStretch(look, { ...frames, frame, worst }, 'm', rider.attachment === null ? null : 'lift'),
      ({ rider: badge }) =>
        `${badge(rider.id)} looks from ${worst.toFixed(2)} m below the ground at frame ${frame}; ${framesText(frames)}.`,
    ),
  );
}
