import type { Anchor, Hitch } from '../document/shot-hitch.js';
import type { Chassis, Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { PathError } from '../path/path-error.js';
import { POSE } from '../pose/index.js';
import { hasWheelbase } from '../ride/index.js';
import type { Finding } from './finding.js';

/** Settings that wait for something they need: what is aimed at, axles, a leader on the same path. */
export function findLooseEnds(evaluated: EvaluatedShot): Finding[] {
  const { shot } = evaluated;
  return shot.riders.flatMap((rider, i): Finding[] => {
    const at = `riders[${i}].hitch`;
    const found = rider.hitch ? looseEndsOf(evaluated, rider, rider.hitch, at) : [];
    if (rider.hitch?.follows && found.length === 0) found.push(...beforeStart(evaluated, rider, i, at));
    return found.map(([where, message]) => ({ severity: 'attention', at: where, message }));
  });
}

function looseEndsOf(
  { shot, axles }: EvaluatedShot,
  rider: Rider,
  hitch: Hitch,
  at: string,
): [string, string][] {
  const found: [string, string][] = [];
  const { facing, follows, pacedBy, anchor } = hitch;
  if (facing.mode === 'aim' && facing.target === null && facing.ahead === 0) {
    found.push([
      `${at}.facing.target`,
      `${rider.badge} aims at nothing; it faces its path until a target is picked.`,
    ]);
  }
  if (anchor !== 'origin' && !(anchor === 'frontAxle' && follows) && !canStand(axles(rider), anchor)) {
    found.push([
      `${at}.anchor`,
      `${rider.badge} is set on its axles, but it has no wheelbase; its origin is on the path.`,
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

function canStand(chassis: Chassis | null, anchor: Anchor): boolean {
  return chassis !== null && (hasWheelbase(chassis) || anchor === 'rearAxle');
}

/** One that hangs behind another and begins before an open path does. */
function beforeStart(
  { shot, paths, poses }: EvaluatedShot,
  { badge, hitch }: Rider,
  i: number,
  at: string,
): [string, string][] {
  const path = paths.get(hitch?.path ?? '');
  if (!hitch?.follows || !path || path instanceof PathError || path.closed) return [];
  const pose = new Float64Array(POSE.size);
  poses[i](shot.range.first, pose, 0);
  const missing = -pose[POSE.distance];
  if (missing <= 0) return [];
  const leader = badgeOf(shot, hitch.follows.rider);
  return [
    [
      `${at}.follows`,
      `${badge} begins ${missing.toFixed(2)} m before its path, behind ${leader}; start ${leader} that much further along to have it on the path.`,
    ],
  ];
}

function badgeOf(shot: Shot, id: string): string {
  return shot.riders.find((other) => other.id === id)?.badge ?? id;
}
