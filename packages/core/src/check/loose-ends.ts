import type { Anchor, Attachment } from '../document/shot-attachment.js';
import type { Chassis } from '../document/shot-rider.js';
import { hasWheelbase } from '../motion/ride/chassis.js';
import { found, type Names, type RawFinding, type FixKind } from './finding.js';
import type { RiderLook } from './rider-look.js';

/** Settings that wait for something they need: what is aimed at, axles, a leader on the same path. */
export function findLooseEnds(look: RiderLook): RawFinding[] {
  const { attachment } = look.rider;
  if (attachment === null) return [];
  const ends = looseEndsOf(look, attachment);
  return attachment.coupledTo && ends.length === 0 ? beforeStart(look, attachment.coupledTo.rider) : ends;
}

function looseEndsOf({ evaluated, rider }: RiderLook, attachment: Attachment): RawFinding[] {
  const { shot, axles } = evaluated;
  const findings: RawFinding[] = [];
  const { facing, coupledTo, pacedBy, anchor } = attachment;
  const loose = (part: string, say: (badge: string, names: Names) => string, fix: FixKind | null = null) =>
    findings.push(
      found('loose-end', 'warning', { rider: rider.id, part, fix }, (names) =>
        say(names.rider(rider.id), names),
      ),
    );
  if (facing.mode === 'aim' && facing.target === null && facing.ahead === 0)
    loose('target', (badge) => `${badge} aims at nothing; it faces its path until a target is picked.`);
  if (anchor !== 'origin' && !(anchor === 'frontAxle' && coupledTo) && !canStand(axles(rider), anchor))
    loose(
      'axles',
      (badge) => `${badge} is set on its axles, but it has no wheelbase; its origin is on the path.`,
      'take-rig',
    );
  if (
    coupledTo &&
    shot.riders.find((other) => other.id === coupledTo.rider)?.attachment?.path !== attachment.path
  )
    loose(
      'follows',
      (badge, names) =>
        `${badge} follows ${names.rider(coupledTo.rider)}, which is not on its path; its own pace is used.`,
    );
  if (pacedBy && !shot.riders.find((other) => other.id === pacedBy.rider)?.attachment)
    loose(
      'pacedBy',
      (badge, names) =>
        `${badge} has the pace of ${names.rider(pacedBy.rider)}, which is not attached; its own pace is used.`,
    );
  return findings;
}

function canStand(chassis: Chassis | null, anchor: Anchor): boolean {
  return chassis !== null && (hasWheelbase(chassis) || anchor === 'rearAxle');
}

/** One that hangs behind another and begins before an open path does. */
function beforeStart(look: RiderLook, leader: string): RawFinding[] {
  const { curve, rider, first } = look;
  if (curve === null || curve.closed) return [];
  const missing = -look.distance(0);
  if (!(missing > 0)) return [];
  return [
    found(
      'past-end',
      'warning',
      {
        rider: rider.id,
        other: leader,
        path: rider.attachment?.path ?? null,
        from: first,
        frame: first,
        distance: -missing,
        figure: missing,
        unit: 'm',
        fix: 'start-along',
      },
      ({ rider: badge }) =>
        `${badge(rider.id)} begins ${missing.toFixed(2)} m before its path, behind ${badge(leader)}; start ${badge(leader)} that much further along to have it on the path.`,
    ),
  ];
}
