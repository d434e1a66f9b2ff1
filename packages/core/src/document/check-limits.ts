import { LIMITS } from './limits.js';
import { ShotError } from './shot-error.js';

/**
 * Refuses lists that are longer than the limits before anything is built from them, so that an
 * overlarge file costs a length check and not a walk.
 */
export function checkLimits(raw: Record<string, unknown>): void {
  limit(raw.paths, 'paths', LIMITS.paths);
  limit(raw.models, 'models', LIMITS.models);
  limit(raw.riders, 'riders', LIMITS.riders);
  limit(raw.cuts, 'cuts', LIMITS.cuts);
  limit(raw.retimes, 'retimes', LIMITS.retimes);
  limit(raw.cues, 'cues', LIMITS.cues);
  limit(raw.formations, 'formations', LIMITS.riders);
  limit(raw.views, 'views', LIMITS.views);
  limit(raw.dressing, 'dressing', LIMITS.laid);
  each(raw.dressing, (laid, i) => {
    limit(laid.profile, `dressing[${i}].profile`, LIMITS.profilePoints);
    limit(laid.others, `dressing[${i}].others`, LIMITS.otherPieces);
  });
  each(raw.retimes, (retime, i) => limit(retime.keys, `retimes[${i}].keys`, LIMITS.keysPerPace));
  each(raw.cues, (cue, i) => limit(cue.keys, `cues[${i}].keys`, LIMITS.keysPerPace));
  each(raw.paths, (path, i) => {
    limit(path.points, `paths[${i}].points`, LIMITS.pointsPerPath);
    limit(path.marks, `paths[${i}].marks`, LIMITS.marksPerPath);
  });
  each(raw.riders, (rider, i) => {
    limit(rider.wheels, `riders[${i}].wheels`, LIMITS.partsPerRider);
    const gait = inside(rider, 'gait');
    limit(gait.feet, `riders[${i}].gait.feet`, LIMITS.partsPerRider);
    limit(gait.acts, `riders[${i}].gait.acts`, LIMITS.partsPerRider);
    limit(rider.cycles, `riders[${i}].cycles`, LIMITS.partsPerRider);
    limit(rider.hangingParts, `riders[${i}].hangingParts`, LIMITS.partsPerRider);
    limit(inside(rider, 'emitter').bursts, `riders[${i}].emitter.bursts`, LIMITS.bursts);
    limit(rider.clips, `riders[${i}].clips`, LIMITS.partsPerRider);
    const attachment = inside(rider, 'attachment');
    const facing = inside(attachment, 'facing');
    limit(inside(rider, 'camera').keys, `riders[${i}].camera.keys`, LIMITS.keysPerPace);
    limit(attachment.influence, `riders[${i}].attachment.influence`, LIMITS.keysPerPace);
    limit(attachment.offsetKeys, `riders[${i}].attachment.offsetKeys`, LIMITS.keysPerPace);
    limit(facing.influence, `riders[${i}].attachment.facing.influence`, LIMITS.keysPerPace);
    limit(
      inside(facing, 'aim').influence,
      `riders[${i}].attachment.facing.aim.influence`,
      LIMITS.keysPerPace,
    );
    limitPace(inside(attachment, 'pace'), `riders[${i}].attachment.pace`);
    limit(attachment.takes, `riders[${i}].attachment.takes`, LIMITS.takesPerRider);
    each(attachment.takes, (take, k) =>
      limitPace(inside(take, 'pace'), `riders[${i}].attachment.takes[${k}].pace`),
    );
  });
}

function limitPace(pace: Record<string, unknown>, at: string): void {
  const drive = inside(pace, 'drive');
  limit(pace.keys, `${at}.keys`, LIMITS.keysPerPace);
  limit(pace.speeds, `${at}.speeds`, LIMITS.keysPerPace);
  limit(drive.stops, `${at}.drive.stops`, LIMITS.keysPerPace);
  limit(drive.zones, `${at}.drive.zones`, LIMITS.keysPerPace);
}

function limit(list: unknown, path: string, most: number): void {
  if (Array.isArray(list) && list.length > most) {
    throw new ShotError(path, `${list.length} entries`, `at most ${most}`);
  }
}

function each(list: unknown, visit: (entry: Record<string, unknown>, index: number) => void): void {
  if (!Array.isArray(list)) return;
  list.forEach((entry, i) => {
    if (typeof entry === 'object' && entry !== null) visit(entry as Record<string, unknown>, i);
  });
}

function inside(object: Record<string, unknown>, key: string): Record<string, unknown> {
  const value = object[key];
  return typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {};
}
