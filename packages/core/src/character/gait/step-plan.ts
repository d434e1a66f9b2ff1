import type { Foot, Gait } from '../../document/shot-rider.js';
import { wrapAngle } from '../../geometry/math/angle.js';
import { bisect } from '../../geometry/math/search.js';
import type { WalkPhase } from './walk-phase.js';
import { idleSpanAt, type IdleSpan } from './idle-spans.js';

/** Foot on the ground: its frames, and the samples that give its position. */
export interface FootDown {
  readonly from: number;
  readonly to: number;
  /** Whether it rests by its walk, or by the idle clip. */
  readonly by: 'walk' | 'idle';
  /** Frame at which the foot is at its position, after an own step; else its stance decides. */
  readonly placedAt: number | null;
}

/** A step that no clip has: the foot goes from its position to its next one, or into the walk. */
export interface OwnStep {
  readonly from: number;
  readonly to: number;
}

/** When one foot is down, and the steps it takes by itself. */
export interface FootPlan {
  readonly downs: readonly FootDown[];
  readonly steps: readonly OwnStep[];
}

/** Range of a plan. */
export interface PlanSpan {
  readonly from: number;
  readonly to: number;
  readonly fps: number;
}

/** Questions of the plan to the figure. */
export interface PlanScene {
  /** Distance of a foot from its position at the frame `from` to that of the clip at `at`, metres. */
  apart(foot: number, from: number, at: number): number;
  /** Which way the walker is turned at a frame, radians. */
  heading(frame: number): number;
  /** How far a foot wanders by what is shown between two frames, metres. */
  wander(foot: number, from: number, to: number): number;
}

/** Samples a frame; edges are then bisected until the error is invisible. */
const SUB = 4;
const HALVINGS = 20;
/** Shorter than this a foot only touches, frames. */
const TOUCH = 0.5;
/** A step on the spot takes so long, seconds; in a short stop less, so that as many fit in. */
const STEP_SECONDS = 0.32;
const STEPS_IN_STOP = 4;
/** A foot this near to its target stays, metres at the figure's size; one that is turned further than this steps. */
const NEAR = 0.04;
const TURN = (28 * Math.PI) / 180;
/** A foot that an act moves about by more than this is the act's, metres at the figure's size. */
const WANDERS = 0.06;

/**
 * Plan of each foot's contacts. While the walker walks, its stances. As it stops, a foot in the air is planted by a
 * last step, and one too far from its target steps to it; as it starts, a foot that is in the air by then is lifted
 * before. While it is stopped and turns, feet step after it, one at a time.
 */
export function planSteps(
  gait: Gait,
  walk: WalkPhase,
  scene: PlanScene,
  span: PlanSpan,
  size: number,
): FootPlan[] {
  const { feet } = gait;
  const phases = walkingPhases(walk, span);
  const plans = feet.map((foot) => ({
    downs: walkingDowns(foot, walk, span, phases),
    steps: [] as OwnStep[],
  }));
  for (const idle of walk.idleSpans) stand(gait, walk, scene, span, size, idle, plans);
  return plans.map(({ downs, steps }) => ({
    downs: downs.filter(({ from, to }) => to - from >= TOUCH).sort((a, b) => a.from - b.from),
    steps: steps.sort((a, b) => a.from - b.from),
  }));
}

interface Plan {
  downs: FootDown[];
  steps: OwnStep[];
}

/** Whether a foot is down at a phase; at none it is not. */
function inStance({ stances }: Foot, phase: number): boolean {
  const part = phase - Math.floor(phase);
  for (const { from, to } of stances) if ((part >= from && part <= to) || part + 1 <= to) return true;
  return false;
}

/** Phase of the walk at {@link SUB} samples a frame, for all feet; NaN while it is stopped. */
function walkingPhases(walk: WalkPhase, { from, to }: PlanSpan): Float64Array {
  const phases = new Float64Array(Math.floor((to - from) * SUB) + 1);
  for (let i = 0; i < phases.length; i++) {
    const frame = from + i / SUB;
    phases[i] = idleSpanAt(walk.idleSpans, frame) < 0 ? walk.phase(frame) : NaN;
  }
  return phases;
}

/** Stances of the walk; one that lasts through a stop, or begins or ends in it, goes to the stop's own ends. */
function walkingDowns(foot: Foot, walk: WalkPhase, { from, to }: PlanSpan, phases: Float64Array): FootDown[] {
  const down = (frame: number): boolean =>
    idleSpanAt(walk.idleSpans, frame) < 0 && inStance(foot, walk.phase(frame));
  const edge = (low: number, high: number): number =>
    // Of the two sides of the edge the one at which it is down.
    down(high) ? bisect(down, low, high, HALVINGS) : bisect(down, high, low, HALVINGS);
  const downs: FootDown[] = [];
  let since = inStance(foot, phases[0]) ? from : NaN;
  const add = (begun: number, end: number) =>
    downs.push({ from: begun, to: end, by: 'walk', placedAt: null });
  for (let i = 1; i < phases.length; i++) {
    const frame = from + i / SUB;
    const now = inStance(foot, phases[i]);
    if (now === !Number.isNaN(since)) continue;
    const at = edge(frame - 1 / SUB, frame);
    if (now) since = at;
    else {
      add(since, at);
      since = NaN;
    }
  }
  if (!Number.isNaN(since)) add(since, to);
  return downs;
}

/** Steps of the feet in one stop, written into their plans. */
function stand(
  gait: Gait,
  walk: WalkPhase,
  scene: PlanScene,
  span: PlanSpan,
  size: number,
  idle: IdleSpan,
  plans: readonly Plan[],
): void {
  const comes = Number.isFinite(idle.from);
  const goes = Number.isFinite(idle.to);
  const begin = Math.max(span.from, idle.from);
  const end = Math.min(span.to, idle.to);
  const phase = walk.phase(comes ? idle.from : goes ? idle.to : begin);
  const stepping = Math.min(STEP_SECONDS * span.fps, (end - begin) / STEPS_IN_STOP);
  const shows = walk.idleWeight((begin + end) / 2) > 0;
  // The walk's own stance at the stop goes on through it, where nothing else is shown.
  if (!shows) {
    plans.forEach((plan, i) => inStance(gait.feet[i], phase) && goThrough(plan, begin, end, 'walk'));
    return;
  }
  const over = Math.min(gait.blend * span.fps, (end - begin) / 2);
  // One after the other: those in the air come down first.
  const order = gait.feet.map((_, i) => i).sort((a, b) => airborne(a) - airborne(b));
  function airborne(i: number): number {
    return inStance(gait.feet[i], phase) ? 1 : 0;
  }
  let free = begin;
  const settled = order.map((i) => {
    const lands = comes && !inStance(gait.feet[i], phase);
    const stands = comes && inStance(gait.feet[i], phase);
    const there = Math.min(end, Math.max(free + stepping, begin + over));
    const far = stands && scene.apart(i, begin, there) > NEAR * size;
    if (!lands && !far) return { foot: i, from: begin, stays: stands };
    const step = { from: free, to: free + stepping };
    plans[i].steps.push(step);
    free = step.to;
    if (far) goThrough(plans[i], begin, step.from, 'walk');
    return { foot: i, from: step.to, stays: false };
  });
  // A foot that is in the air as the walk sets off is lifted before, while the walk fades in.
  const lifted = end - Math.min(Math.max(over, stepping / 2), (end - free) / 2);
  for (const { foot, from, stays } of settled) {
    const lifts = goes && !inStance(gait.feet[foot], phase);
    const until = lifts ? lifted : end;
    if (lifts) plans[foot].steps.push({ from: lifted, to: end });
    const act = { from: Math.max(from, begin + over), to: Math.min(until, end - over) };
    if (act.to - act.from > 1 && scene.wander(foot, act.from, act.to) > WANDERS * size) {
      // The clip moves this foot itself; it is held only while fading in and out.
      put(plans[foot], { from, to: act.from, by: 'idle', placedAt: act.from });
      stayInto(plans[foot], { from: act.to, to: until, by: 'idle', placedAt: act.to });
    } else if (stays) goThrough(plans[foot], begin, until, 'walk');
    else
      stayInto(plans[foot], {
        from,
        to: until,
        by: 'idle',
        placedAt: Math.min(until, act.from),
      });
  }
  turnAbout(plans, scene, stepping, free, lifted);
}

/** Feet step after a body that turns, the one that is turned furthest first, and only one at a time. */
function turnAbout(
  plans: readonly Plan[],
  scene: PlanScene,
  stepping: number,
  from: number,
  to: number,
): void {
  /** Feet mostly keep one position for many frames. */
  const headings = new Map<number, number>();
  const headingAt = (at: number): number => {
    const known = headings.get(at) ?? scene.heading(at);
    headings.set(at, known);
    return known;
  };
  let frame = from;
  while (frame + stepping < to) {
    const now = headingAt(frame);
    let turned: { readonly plan: Plan; readonly down: FootDown } | null = null;
    let most = 0;
    for (const plan of plans) {
      const down = plan.downs.find((one) => one.from <= frame && one.to >= frame + stepping);
      if (down === undefined) continue;
      const far = Math.abs(wrapAngle(now - headingAt(placeFrame(down, frame))));
      if (far > most) [turned, most] = [{ plan, down }, far];
    }
    if (turned === null || most < TURN) {
      frame += 1;
      continue;
    }
    const { plan, down } = turned;
    const lands = frame + stepping;
    plan.downs = plan.downs.filter((one) => one !== down);
    put(plan, { ...down, to: frame, placedAt: placeFrame(down, frame) });
    put(plan, { from: lands, to: down.to, by: 'idle', placedAt: lands });
    plan.steps.push({ from: frame, to: lands });
    frame = lands;
  }
}

/** The frame at which a foot that is down was put where it is. */
const placeFrame = ({ placedAt, from }: FootDown, now: number): number =>
  placedAt === null ? from : Math.min(placedAt, now);

function put(plan: Plan, down: FootDown): void {
  if (down.to > down.from) plan.downs.push(down);
}

/** Puts a foot down; where the walk has it down from there on as well, it stays where it is until that lifts it. */
function stayInto(plan: Plan, down: FootDown): void {
  const after = plan.downs.find(({ from }) => Math.abs(from - down.to) < 1e-3);
  plan.downs = plan.downs.filter((one) => one !== after);
  put(plan, { ...down, to: after?.to ?? down.to });
}

/** Lets a stance go on through some frames, as one with those of the walk that end and begin there. */
function goThrough(plan: Plan, from: number, to: number, by: FootDown['by']): void {
  const touches = (a: number, b: number) => Math.abs(a - b) < 1e-3;
  const before = plan.downs.find((down) => touches(down.to, from));
  const after = plan.downs.find((down) => touches(down.from, to));
  plan.downs = plan.downs.filter((down) => down !== before && down !== after);
  put(plan, {
    from: before?.from ?? from,
    to: after?.to ?? to,
    by,
    placedAt: null,
  });
}
