import type { Hitch } from '../document/shot-hitch.js';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { PathError } from '../path/path-error.js';
import { POSE } from '../pose/index.js';
import type { Finding } from './finding.js';

/** Settings that wait for something they need: what is aimed at, axles, a leader on the same path. */
export function findLooseEnds({ shot, paths, poses }: EvaluatedShot): Finding[] {
  const pose = new Float64Array(POSE.size);
  return shot.riders.flatMap((rider, i): Finding[] => {
    const at = `riders[${i}].hitch`;
    const found = rider.hitch ? looseEndsOf(shot, rider, rider.hitch, at) : [];
    const follows = rider.hitch?.follows;
    const path = paths.get(rider.hitch?.path ?? '');
    if (follows && found.length === 0 && path && !(path instanceof PathError) && !path.closed) {
      poses[i](shot.range.first, pose, 0);
      const leader = badgeOf(shot, follows.rider);
      if (pose[POSE.distance] <= 0) {
        found.push([
          `${at}.follows`,
          `${rider.badge} has no room behind ${leader} at the first frame; start its leader further along the path.`,
        ]);
      }
    }
    return found.map(([where, message]) => ({ severity: 'attention', at: where, message }));
  });
}

function looseEndsOf(shot: Shot, rider: Rider, hitch: Hitch, at: string): [string, string][] {
  const found: [string, string][] = [];
  const { facing, follows, pacedBy, anchor } = hitch;
  if (facing.mode === 'aim' && facing.target === null && facing.ahead === 0) {
    found.push([
      `${at}.facing.target`,
      `${rider.badge} aims at nothing; it faces its path until a target is picked.`,
    ]);
  }
  const onAxles = anchor === 'bothAxles' || anchor === 'rearAxle';
  if (onAxles && (rider.chassis === null || rider.chassis.frontAxle <= rider.chassis.rearAxle)) {
    found.push([
      `${at}.anchor`,
      `${rider.badge} shall stand on its axles, but it has no wheelbase; it stands on its origin.`,
    ]);
  }
  if (follows && shot.riders.find((other) => other.id === follows.rider)?.hitch?.path !== hitch.path) {
    found.push([
      `${at}.follows.rider`,
      `${rider.badge} follows ${badgeOf(shot, follows.rider)}, which is not on its path; it goes by its own pace.`,
    ]);
  }
  if (pacedBy && !shot.riders.find((other) => other.id === pacedBy.rider)?.hitch) {
    found.push([
      `${at}.pacedBy.rider`,
      `${rider.badge} takes its time from ${badgeOf(shot, pacedBy.rider)}, which rides nothing; it goes by its own pace.`,
    ]);
  }
  return found;
}

function badgeOf(shot: Shot, id: string): string {
  return shot.riders.find((other) => other.id === id)?.badge ?? id;
}
