import type { Cue, CueAction } from '../document/shot-cue.js';
import type { EvaluatedShot } from '../shot/evaluate/evaluate-shot.js';
import { eachAction } from '../document/each-action.js';
import { hasOwnPace } from '../motion/timing/leader.js';
import { found, type Names, type RawFinding } from './finding.js';

/** Cues that wait for what does not come, or act on what is not there. */
export function findIdleCues(evaluated: EvaluatedShot): RawFinding[] {
  const waiting = new Set<string>();
  return eachAction(evaluated.shot.cues).flatMap((cue): RawFinding[] => {
    const idle = cue.off ? null : idleness(evaluated, cue);
    // A cue that never comes is one finding, however much it would do.
    if (idle === null || (idle.waits && waiting.has(cue.id))) return [];
    if (idle.waits) waiting.add(cue.id);
    const { rider } = cue.action;
    return [
      found(
        'cue-never',
        idle.waits ? 'fault' : 'warning',
        { rider, part: cue.name, fix: 'switch-off' },
        idle.say,
      ),
    ];
  });
}

interface Idle {
  /** Whether a rider waits for ever. */
  readonly waits: boolean;
  say(names: Names): string;
}

function idleness(evaluated: EvaluatedShot, cue: Cue): Idle | null {
  const { action, keys, name } = cue;
  const rider = evaluated.shot.riders.find(({ id }) => id === action.rider);
  const idle = (say: (badge: string) => string, waits = false): Idle => ({
    waits,
    say: (names) => say(names.rider(action.rider)),
  });
  if (keys.length === 0) return idle(() => `The cue "${name}" has no keys, so it does nothing.`);
  if (action.kind === 'turn' || action.kind === 'move')
    return rider && staysPut(evaluated, cue)
      ? idle(
          (badge) =>
            `The cue "${name}" never acts on "${action.node}" of ${badge}: its value stays the same over the whole shot.`,
        )
      : null;
  if (!TIMES.has(action.kind))
    return valueIdles(evaluated, cue) ? idle((badge) => sayIdle(cue, badge)) : null;
  if (!rider?.attachment && rider?.transformKeys && action.kind === 'start')
    return evaluated.moment(cue) !== null
      ? null
      : idle((badge) => `The cue "${name}" never comes, and ${badge} waits forever.`, true);
  if (!rider?.attachment)
    return idle((badge) => `The cue "${name}" waits to move ${badge}, which rides no path.`);
  if (!hasOwnPace(rider.attachment))
    return idle(
      (badge) =>
        `The cue "${name}" does nothing to ${badge}, which has the pace of another rider; cue that one.`,
    );
  const stops = evaluated.timing(rider)?.ownStops.length ?? 0;
  if (action.kind === 'stopEnd' && stops <= action.stop)
    return idle(
      (badge) =>
        `The cue "${name}" ends stop ${action.stop + 1} of ${badge}, which makes ${stops === 0 ? 'none' : stops}.`,
    );
  if (evaluated.moment(cue) !== null) return null;
  return idle(
    (badge) =>
      `The cue "${name}" never comes: its value does not reach 1 in the shot, and ${badge} waits forever.`,
    true,
  );
}

const TIMES: ReadonlySet<string> = new Set<CueAction['kind']>(['start', 'stopEnd']);

/** Whether what a cue plays, shows, blends or cuts to never comes. */
function valueIdles(evaluated: EvaluatedShot, cue: Cue): boolean {
  const { action, keys } = cue;
  const { first, last } = evaluated.shot.range;
  if (
    action.kind === 'camera' ||
    action.kind === 'path' ||
    (action.kind === 'play' && action.plays === 'once')
  ) {
    const moment = evaluated.moment(cue);
    return moment === null || moment > last;
  }
  if (keys.every(({ value }) => value === keys[0].value)) return false;
  const value = evaluated.cue(cue);
  for (let frame = first + 1; frame <= last; frame++)
    if (Math.abs(value(frame) - value(first)) > 1e-9) return false;
  return true;
}

function sayIdle({ name, action }: Cue, badge: string): string {
  if (action.kind === 'camera')
    return `The cue "${name}" never cuts to ${badge}: its moment does not come in the shot.`;
  if (action.kind === 'path')
    return `The cue "${name}" never switches ${badge} to its other path: its moment does not come in the shot.`;
  if (action.kind === 'play')
    return `The cue "${name}" never plays "${action.clip}" of ${badge} in the shot.`;
  return `The cue "${name}" changes nothing of ${badge}: its value stays the same over the whole shot.`;
}

/** Whether what a cue does to a part is the same at every frame, though its keys differ. */
function staysPut(evaluated: EvaluatedShot, { action, keys }: Cue): boolean {
  if (keys.every(({ value }) => value === keys[0].value)) return false;
  const { shot } = evaluated;
  const rider = shot.riders.find(({ id }) => id === action.rider);
  const gauges = rider ? evaluated.gauges(rider) : [];
  const gauge = gauges.find(({ kind, part }) => kind === 'cue' && part === action.node);
  if (gauge === undefined) return false;
  const { first, last } = shot.range;
  const begin = gauge.value(first);
  for (let frame = first + 1; frame <= last; frame++)
    if (Math.abs(gauge.value(frame) - begin) > 1e-9) return false;
  return true;
}
