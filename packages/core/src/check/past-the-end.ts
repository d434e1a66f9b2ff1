import type { Attachment } from '../document/shot-attachment.js';
import { metresPerValue } from '../motion/pace/change-unit.js';
import { compiledPaceOf } from '../motion/pace/compiled-pace-of.js';
import type { CompiledPath } from '../geometry/path/compiled-path.js';
import { mapFrames } from '../motion/timing/map-frames.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';

/** Keys or speeds that ask for a place an open path does not have: the rider waits at its end. */
export function findPastTheEnd(look: RiderLook): RawFinding[] {
  const { rider, curve } = look;
  const { attachment } = rider;
  if (attachment === null || curve === null || curve.closed || attachment.coupledTo || attachment.pacedBy)
    return [];
  const { keys, unit, mode } = attachment.pace;
  if (mode === 'speed') return runsOut(look, attachment, curve);
  if (mode !== 'keys') return [];
  const most = curve.length / metresPerValue(attachment.pace, curve);
  const slack = most * 1e-9;
  const beyond = (value: number) => Math.max(-value, value - most);
  const worst = keys.reduce(
    (a, b) => (b && beyond(b.value) > (a ? beyond(a.value) : slack) ? b : a),
    null as (typeof keys)[number] | null,
  );
  if (worst === null || beyond(worst.value) <= slack) return [];
  const end = worst.value < 0 ? 0 : curve.length;
  const waits = Array.from({ length: look.count }, (_, i) => i).filter(
    (i) => Math.abs(look.distance(i) - end) < 1e-6,
  );
  return [
    found(
      'past-end',
      'warning',
      {
        rider: rider.id,
        path: attachment.path,
        from: waits.length > 0 ? look.first + waits[0] : null,
        to: waits.length > 0 ? look.first + waits[waits.length - 1] : null,
        frame: Math.round(worst.frame),
        distance: end,
        figure: beyond(worst.value) * metresPerValue(attachment.pace, curve),
        unit: 'm',
        fix: 'reach-end',
      },
      ({ rider: badge }) =>
        `${badge(rider.id)} has a key at ${Number(worst.value.toFixed(3))} ${unit} (frame ${Number(worst.frame.toFixed(2))}), but the path runs from 0 to ${most.toFixed(3)}; it stops at the end.`,
    ),
  ];
}

/** Speeds that lead past an end, where the rider waits and does not run on. */
function runsOut(look: RiderLook, { pace, path: id }: Attachment, path: CompiledPath): RawFinding[] {
  const { rider, evaluated } = look;
  const { shot, timing } = evaluated;
  const { length } = path;
  const run = compiledPaceOf(pace, shot.fps, path);
  const { own } = mapFrames(timing(rider)?.steps ?? [], shot.range);
  const { first, last } = shot.range;
  for (let frame = first; frame <= last; frame++) {
    const place = run.distance(own(frame));
    const end = place < -1e-6 ? 'start' : place > length + 1e-6 ? 'end' : null;
    if (end === null || (end === 'start' ? pace.before : pace.after) === 'run') continue;
    const there = run.distance(own(last));
    return [
      found(
        'past-end',
        'warning',
        {
          rider: rider.id,
          path: id,
          from: frame,
          to: last,
          frame,
          distance: end === 'start' ? 0 : length,
          figure: Math.max(-there, there - length, 0),
          unit: 'm',
          fix: 'reach-end',
        },
        ({ rider: badge }) =>
          `${badge(rider.id)} reaches the ${end} of its path by frame ${frame} and stops there; the path runs from 0 to ${length.toFixed(3)} m.`,
      ),
    ];
  }
  return [];
}
