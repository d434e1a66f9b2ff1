import type { Pace } from '../../document/shot-pace.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { withAttachment, withRider } from '../edits/change-rider.js';
import { curveRidden } from '../../geometry/path/compiled-path-of.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { matchedEnds, thereAndBack, wholeLaps, type CycleFrames } from './close-pace.js';
import { inCycle } from './in-cycle.js';
import { cycleFrames } from './partners.js';
import type { SeamGap } from './seam-report.js';

/** A way to close a gap, shown before it is taken. */
export interface Closing {
  /** A verb for a button. */
  readonly label: string;
  /** Its change, in numbers. */
  readonly detail: string;
  /** How much it changes, as a part of what was: the least comes first. */
  readonly change: number;
  readonly shot: Shot;
}

/** A wheel or a stride is not changed by more than this, as a part of it. */
const CLOSING_TOLERANCE = 0.05;

/** Whether a gap may be closable: a rider with another's pace closes with that one. */
export function canClose({ riders }: Shot, { rider: id, channel }: SeamGap): boolean {
  const attachment = riders.find((rider) => rider.id === id)?.attachment;
  if (channel === 'focal' || channel === 'part' || channel === 'swing' || channel === 'roll') return false;
  if (channel === 'wheel' || channel === 'gait' || channel === 'cycle') return true;
  return attachment !== null && attachment !== undefined && !attachment.coupledTo && !attachment.pacedBy;
}

/** The ways to close a gap, the least change first. */
export function closingsOf(evaluated: EvaluatedShot, gap: SeamGap, tolerance = CLOSING_TOLERANCE): Closing[] {
  const { shot } = evaluated;
  const rider = shot.riders.find(({ id }) => id === gap.rider);
  if (rider === undefined || !canClose(shot, gap)) return [];
  const found =
    gap.channel === 'wheel' || gap.channel === 'gait'
      ? rolling(evaluated, rider, gap, tolerance)
      : gap.channel === 'cycle'
        ? cycling(evaluated, rider, gap)
        : pacing(evaluated, rider);
  return found.sort((a, b) => a.change - b.change);
}

function pacing({ shot }: EvaluatedShot, rider: Rider): Closing[] {
  const { attachment } = rider;
  const path = curveRidden(shot, rider);
  if (!attachment || path === null) return [];
  const { fps, range } = shot;
  const cycle: CycleFrames = { first: range.first, frames: cycleFrames(shot), fps };
  const { pace } = attachment;
  const taken = (next: Pace): Shot => ({
    ...withAttachment(shot, rider.id, (before) => ({ ...before, pace: next })),
    loop: true,
  });
  const closings: Closing[] = [];
  const laps = path.closed ? wholeLaps(pace, path, cycle) : null;
  if (laps && (Math.abs(laps.rate - 1) > 1e-9 || outsideChanges(pace, laps.pace))) {
    closings.push({
      label: 'Whole laps',
      detail: `${laps.laps} ${Math.abs(laps.laps) === 1 ? 'lap' : 'laps'} a cycle, speed × ${laps.rate.toFixed(3)}`,
      change: Math.abs(laps.rate - 1),
      shot: taken(laps.pace),
    });
  }
  const back = path.closed ? null : thereAndBack(pace, cycle);
  if (back) {
    closings.push({
      label: 'There and back',
      detail: `half a cycle each way, speed × ${back.rate.toFixed(3)}`,
      change: Math.abs(back.rate - 1),
      shot: taken(back.pace),
    });
  }
  const matched = matchedEnds(pace, path, fps);
  if (matched) {
    closings.push({
      label: 'Match the ends',
      detail: 'equal speed at the first and the last key',
      // It closes no gap of place, so it comes after what does.
      change: closings.length === 0 ? 0 : 1,
      shot: taken(matched),
    });
  }
  return closings;
}

/** Whether two paces differ in more than their values. */
function outsideChanges(before: Pace, after: Pace): boolean {
  const frames = ({ keys }: Pace) => keys.map(({ frame }) => frame.toFixed(6)).join();
  return before.after !== after.after || before.before !== after.before || frames(before) !== frames(after);
}

function rolling(evaluated: EvaluatedShot, rider: Rider, gap: SeamGap, tolerance: number): Closing[] {
  const { shot } = evaluated;
  const wheel = rider.wheels.find(({ node }) => node === gap.part);
  // Wheels of one axle stay alike, and are fitted to the mean of their ways: in a bend they differ a little. An axle that steers goes
  // another way than one that follows.
  const alike = rider.wheels.filter(
    ({ radius, steers }) => wheel && Math.abs(radius - wheel.radius) < 1e-6 && steers === wheel.steers,
  );
  const moved = wheel
    ? alike.reduce(
        (sum, { node }) => sum + Math.abs(rolledInCycle(evaluated, rider, node)) * wheel.radius,
        0,
      ) / alike.length
    : Math.abs(inCycle(evaluated, rider, gap.meets).moved);
  const round = gap.channel === 'wheel' && wheel ? 2 * Math.PI * wheel.radius : rider.gait?.stride;
  if (round === undefined || moved < 1e-9) return [];
  // A spoked wheel may end on any of its spokes.
  const turns = Math.max(1, Math.round((moved / round) * gap.folds)) / gap.folds;
  const factor = moved / turns / round;
  if (Math.abs(factor - 1) > tolerance) return [];
  const { gait } = rider;
  const after = withRider(shot, rider.id, (before) =>
    gap.channel === 'wheel'
      ? {
          ...before,
          wheels: before.wheels.map((one) =>
            alike.includes(one) ? { ...one, radius: one.radius * factor } : one,
          ),
        }
      : { ...before, gait: gait && { ...gait, stride: gait.stride * factor } },
  );
  const what = gap.channel === 'wheel' ? (wheel?.radius ?? 0) : round;
  return [
    {
      label: gap.channel === 'wheel' ? 'Change the radius' : 'Change the stride',
      detail: `${what.toFixed(4)} m → ${(what * factor).toFixed(4)} m, ${inTurns(turns, gap)}`,
      change: Math.abs(factor - 1),
      shot: after,
    },
  ];
}

const inTurns = (turns: number, { channel, folds }: SeamGap): string =>
  channel !== 'wheel'
    ? `${turns} whole strides`
    : folds === 1
      ? `${turns} whole turns`
      : `${Math.round(turns * folds)} × 1/${folds} turn`;

/** By how much a wheel turns in a cycle, radians. */
function rolledInCycle({ shot, gauges }: EvaluatedShot, rider: Rider, wheel: string): number {
  const turns = gauges(rider).find(({ kind, part }) => kind === 'turns' && part === wheel);
  if (!turns) return 0;
  return (turns.value(shot.range.last + 1) - turns.value(shot.range.first)) * 2 * Math.PI;
}

function cycling(evaluated: EvaluatedShot, rider: Rider, gap: SeamGap): Closing[] {
  const { shot } = evaluated;
  const { moved, seconds } = inCycle(evaluated, rider, gap.meets);
  const cycle = rider.cycles.find(({ node }) => node === gap.part);
  if (cycle === undefined) return [];
  const span = cycle.by === 'time' ? seconds : Math.abs(moved);
  if (span < 1e-9) return [];
  const whole = Math.max(1, Math.round(Math.abs(cycle.rate) * span)) * Math.sign(cycle.rate || 1);
  const rate = whole / span;
  const after = withRider(shot, rider.id, (before) => ({
    ...before,
    cycles: before.cycles.map((one) => (one.node === cycle.node ? { ...one, rate } : one)),
  }));
  return [
    {
      label: 'Make it whole cycles',
      detail: `${cycle.rate.toFixed(3)} → ${rate.toFixed(3)} a ${cycle.by === 'time' ? 'second' : 'metre'}, ${Math.abs(whole)} cycles`,
      change: Math.abs(rate / (cycle.rate || rate) - 1),
      shot: after,
    },
  ];
}
