import { cuesBehind } from './each-action.js';
import { LIMITS } from './limits.js';
import { refuseCircles } from './rider-graph.js';
import { ShotError, inWords } from './shot-error.js';
import type { Cue } from './shot-cue.js';
import type { AimTarget, Facing } from './shot-facing.js';
import type { Emitter } from './shot-emitter.js';
import type { Dressing } from './shot-dressing.js';
import type { Frozen, FrozenTrack } from './shot-frozen.js';
import type { Attachment } from './shot-attachment.js';
import type { Key } from './shot-keys.js';
import type { Pace } from './shot-pace.js';
import type { ShotPath } from './shot-path.js';
import type { Rider } from './shot-rider.js';
import type { Shot } from './shot.js';

/**
 * Refuses what no single field can show: ids given twice or pointing nowhere, circles of parents,
 * keys out of order, a range that runs backward, a facing whose axes are one line.
 *
 * @throws ShotError with the path of the first fault
 */
export function checkReferences(shot: Shot): void {
  const { first, last } = shot.range;
  if (last < first) throw new ShotError('range.last', `${last}`, `${first} (first) or more`);
  if (last - first + 1 > LIMITS.frames) {
    throw new ShotError('range', `${last - first + 1} frames`, `at most ${LIMITS.frames}`);
  }
  unique(shot.paths, 'paths');
  unique(shot.models, 'models');
  unique(shot.riders, 'riders');
  shot.paths.forEach((path, i) => checkPath(path, `paths[${i}]`));
  shot.models.forEach((model, i) => {
    exactlyOne(`models[${i}].source`, { file: model.source.file, asset: model.source.asset });
  });
  shot.riders.forEach((rider, i) => checkRider(shot, rider, `riders[${i}]`));
  if (shot.ground.model !== null) {
    refuseUnknown('ground.model', shot.ground.model, 'model', shot.models);
  }
  shot.retimes.forEach((retime, i) => {
    retime.riders.forEach((id, k) => refuseUnknown(`retimes[${i}].riders[${k}]`, id, 'rider', shot.riders));
    risingKeys(retime.keys, `retimes[${i}].keys`);
  });
  unique(shot.cues, 'cues');
  unique(shot.formations, 'formations');
  unique(shot.views, 'views');
  unique(shot.dressing, 'dressing');
  shot.dressing.forEach((laid, i) => checkDressing(shot, laid, `dressing[${i}]`));
  shot.formations.forEach(({ leader, members }, i) => {
    refuseUnknown(`formations[${i}].leader`, leader, 'rider', shot.riders);
    members.forEach((id, k) => {
      if (id !== null) refuseUnknown(`formations[${i}].members[${k}]`, id, 'rider', shot.riders);
    });
  });
  shot.cues.forEach((cue, i) => checkCue(shot, cue, `cues[${i}]`));
  refuseCueCircles(shot);
  refuseCircles(shot);
  checkCuts(shot);
}

function checkDressing(shot: Shot, laid: Dressing, at: string): void {
  refuseUnknown(`${at}.path`, laid.path, 'path', shot.paths);
  if (laid.model !== null) refuseUnknown(`${at}.model`, laid.model, 'model', shot.models);
  laid.others.forEach(({ model }, i) =>
    refuseUnknown(`${at}.others[${i}].model`, model, 'model', shot.models),
  );
  if (laid.kind === 'profile' && laid.profile.length < 2) {
    throw new ShotError(`${at}.profile`, `${laid.profile.length} points`, 'two at least, for a profile');
  }
}

function checkEmitter(shot: Shot, emitter: Emitter, at: string): void {
  if (emitter.model !== null) refuseUnknown(`${at}.model`, emitter.model, 'model', shot.models);
  if (emitter.from === 'part' && emitter.node === null) {
    throw new ShotError(`${at}.node`, 'null', 'the name of a part, for one that sprays');
  }
  emitter.bursts.forEach(({ cue }, i) => {
    if (cue !== null) refuseUnknown(`${at}.bursts[${i}].cue`, cue, 'cue', shot.cues);
  });
}

function checkPath(path: ShotPath, at: string): void {
  unique(path.marks, `${at}.marks`);
  if (path.basis !== 'nurbs' || path.knots === null) return;
  const wanted = path.points.length + path.degree + 1;
  if (path.knots.length !== wanted) {
    throw new ShotError(
      `${at}.knots`,
      `${path.knots.length} knots`,
      `${wanted} (points + degree + 1), or null`,
    );
  }
}

function checkRider(shot: Shot, rider: Rider, at: string): void {
  if (rider.model !== null) refuseUnknown(`${at}.model`, rider.model, 'model', shot.models);
  if (rider.parent !== null) refuseUnknown(`${at}.parent`, rider.parent, 'rider', shot.riders);
  rider.clearance?.from.forEach((one, i) =>
    refuseUnknown(`${at}.clearance.from[${i}].rider`, one.rider, 'rider', shot.riders),
  );
  if (rider.attachment !== null) checkAttachment(shot, rider.attachment, `${at}.attachment`);
  if (rider.transformKeys !== null) risingKeys(rider.transformKeys.keys, `${at}.transformKeys.keys`);
  if (rider.restAim !== null) {
    checkAxes(rider.restAim, `${at}.restAim`);
    checkTarget(shot, rider.restAim.target, `${at}.restAim.target`);
    risingKeys(rider.restAim.aim.influence, `${at}.restAim.aim.influence`);
  }
  if (rider.follow) refuseUnknown(`${at}.follow.rider`, rider.follow.rider, 'rider', shot.riders);
  rider.parentKeys.forEach((key, i) => {
    if (key.rider !== null) refuseUnknown(`${at}.parentKeys[${i}].rider`, key.rider, 'rider', shot.riders);
  });
  risingKeys(rider.parentKeys, `${at}.parentKeys`);
  if (rider.emitter !== null) checkEmitter(shot, rider.emitter, `${at}.emitter`);
  if (rider.frozen !== null) checkFrozen(rider.frozen, `${at}.frozen`);
  if (rider.gait?.source != null) refuseUnknown(`${at}.gait.source`, rider.gait.source, 'model', shot.models);
  checkGait(rider, `${at}.gait`);
  checkClips(rider, `${at}.clips`);
  if (rider.camera === null) return;
  const { near, far, keys } = rider.camera;
  if (!(far > near)) throw new ShotError(`${at}.camera.far`, `${far}`, `more than ${near} (near)`);
  risingKeys(keys, `${at}.camera.keys`);
}

function checkGait({ gait }: Rider, at: string): void {
  gait?.acts.forEach(({ from, to }, i) => {
    if (to === null || to > from) return;
    throw new ShotError(`${at}.acts[${i}].to`, `${to} s`, `more than ${from} s (from), or null`);
  });
  gait?.feet.forEach(({ stances }, i) =>
    stances.forEach(({ from, to }, k) => {
      if (to > from && to <= from + 1) return;
      throw new ShotError(
        `${at}.feet[${i}].stances[${k}].to`,
        `${to}`,
        `more than ${from} (from), and no more than a cycle after it`,
      );
    }),
  );
}

function checkClips({ clips }: Rider, at: string): void {
  clips.forEach(({ frame, until, from, to }, i) => {
    if (!(until > frame)) throw new ShotError(`${at}[${i}].until`, `${until}`, `more than ${frame} (frame)`);
    if (to !== null && to <= from)
      throw new ShotError(`${at}[${i}].to`, `${to} s`, `more than ${from} s (from), or null`);
  });
  risingKeys(clips, at);
}

function checkCuts({ cuts, riders }: Shot): void {
  risingKeys(cuts, 'cuts');
  cuts.forEach(({ camera }, i) => {
    refuseUnknown(`cuts[${i}].camera`, camera, 'rider', riders);
    if (riders.some((rider) => rider.id === camera && rider.camera !== null)) return;
    throw new ShotError(
      `cuts[${i}].camera`,
      `${inWords(camera)} that has no camera`,
      'a rider with a camera',
    );
  });
}

function checkCue(
  { riders, cues, paths }: Shot,
  { trigger, action, moreActions, keys }: Cue,
  at: string,
): void {
  const source = (field: 'rider' | 'other' | 'cue') => {
    const id = trigger[field];
    const noun = field === 'cue' ? 'cue' : 'rider';
    if (id === null)
      throw new ShotError(`${at}.trigger.${field}`, 'null', `the id of a ${noun}, for ${trigger.kind}`);
    refuseUnknown(`${at}.trigger.${field}`, id, noun, noun === 'cue' ? cues : riders);
  };
  if (trigger.kind === 'cue') source('cue');
  else if (trigger.kind !== 'frame') source('rider');
  if (trigger.kind === 'gap') source('other');
  [action, ...moreActions].forEach((action, i) => {
    const of = i === 0 ? `${at}.action` : `${at}.moreActions[${i - 1}]`;
    refuseUnknown(`${of}.rider`, action.rider, 'rider', riders);
    if ((action.kind === 'turn' || action.kind === 'move') && action.node === null) {
      throw new ShotError(`${of}.node`, 'null', `the name of a part, to ${action.kind}`);
    }
    if (action.kind === 'play' && action.clip === null) {
      throw new ShotError(`${of}.clip`, 'null', 'the name of a clip, to play');
    }
    if (action.path !== null) refuseUnknown(`${of}.path`, action.path, 'path', paths);
    else if (action.kind === 'path') throw new ShotError(`${of}.path`, 'null', 'the id of a path');
    if (action.kind === 'camera' && !riders.some(({ id, camera }) => id === action.rider && camera)) {
      throw new ShotError(
        `${of}.rider`,
        `${inWords(action.rider)} that has no camera`,
        'a rider with a camera',
      );
    }
  });
  rising(
    keys.map((key) => key.at),
    (i) => `${at}.keys[${i}].at`,
  );
}

function refuseCueCircles({ cues }: Shot): void {
  cues.forEach((cue, i) => {
    if (cue.trigger.kind !== 'cue') return;
    const behind = cuesBehind(cue, cues);
    const last = behind[behind.length - 1];
    if (last.trigger.kind !== 'cue') return;
    throw new ShotError(
      `cues[${i}].trigger.cue`,
      [...behind, cue].map(({ name }) => name).join(' → '),
      'cues that listen to each other in no circle',
    );
  });
}

function risingKeys(keys: readonly Pick<Key, 'frame'>[], at: string): void {
  rising(
    keys.map((key) => key.frame),
    (i) => `${at}[${i}].frame`,
  );
}

function checkAttachment(shot: Shot, attachment: Attachment, at: string): void {
  refuseUnknown(`${at}.path`, attachment.path, 'path', shot.paths);
  checkAxes(attachment.facing, `${at}.facing`);
  checkTarget(shot, attachment.facing.target, `${at}.facing.target`);
  risingKeys(attachment.influence, `${at}.influence`);
  risingKeys(attachment.facing.influence, `${at}.facing.influence`);
  risingKeys(attachment.facing.aim.influence, `${at}.facing.aim.influence`);
  risingKeys(attachment.offsetKeys, `${at}.offsetKeys`);
  if (attachment.coupledTo)
    refuseUnknown(`${at}.coupledTo.rider`, attachment.coupledTo.rider, 'rider', shot.riders);
  if (attachment.pacedBy)
    refuseUnknown(`${at}.pacedBy.rider`, attachment.pacedBy.rider, 'rider', shot.riders);
  if (attachment.coupledTo && attachment.pacedBy) {
    throw new ShotError(`${at}.pacedBy`, 'a second leader', 'null beside follows: a rider has one timing');
  }
  checkPace(attachment.pace, `${at}.pace`);
  attachment.takes.forEach(({ pace }, i) => checkPace(pace, `${at}.takes[${i}].pace`));
}

function checkAxes({ forward, up }: Pick<Facing, 'forward' | 'up'>, at: string): void {
  if (forward[1] !== up[1]) return;
  throw new ShotError(`${at}.up`, inWords(up), `an axis square to forward (${forward})`);
}

function checkTarget(shot: Shot, target: AimTarget | null, at: string): void {
  if (target === null) return;
  exactlyOne(at, { rider: target.rider, point: target.point });
  if (target.rider !== undefined) refuseUnknown(`${at}.rider`, target.rider, 'rider', shot.riders);
  if (target.node !== undefined && target.rider === undefined) {
    throw new ShotError(`${at}.node`, inWords(target.node), 'a rider whose part it is');
  }
}

function checkFrozen({ translation, rotation, figures, parts }: Frozen, at: string): void {
  const check = (track: FrozenTrack, width: number, name: string) => {
    const wanted = track.frames.length * width;
    if (track.values.length !== wanted) {
      throw new ShotError(
        `${at}.${name}.values`,
        `${track.values.length} numbers`,
        `${wanted}: ${width} for each of ${track.frames.length} frames`,
      );
    }
  };
  check(translation, 3, 'translation');
  check(rotation, 4, 'rotation');
  check(figures, 3, 'figures');
  parts.forEach((part, i) => {
    check(part.translation, 3, `parts[${i}].translation`);
    check(part.rotation, 4, `parts[${i}].rotation`);
    check(part.scale, 3, `parts[${i}].scale`);
    const { weights } = part;
    if (weights)
      check(weights, Math.round(weights.values.length / weights.frames.length), `parts[${i}].weights`);
  });
}

function checkPace({ keys, speeds }: Pace, at: string): void {
  risingKeys(keys, `${at}.keys`);
  speeds.forEach((key, i) => {
    exactlyOne(`${at}.speeds[${i}]`, { frame: key.frame, distance: key.distance });
    if ((key.frame === undefined) !== (speeds[0].frame === undefined)) {
      throw new ShotError(`${at}.speeds[${i}]`, 'a mix', 'all by frame, or all by distance');
    }
    if (key.distance === undefined) return;
    if (key.speed === 0) {
      throw new ShotError(
        `${at}.speeds[${i}].speed`,
        '0 m/s',
        'a speed above or below 0: by distance, a rider that stands never comes to the next place',
      );
    }
    if (Math.sign(key.speed) !== Math.sign(speeds[0].speed)) {
      throw new ShotError(
        `${at}.speeds[${i}].speed`,
        `${key.speed} m/s`,
        `the sign of the first (${speeds[0].speed}): between the two the rider would stand for ever`,
      );
    }
  });
  rising(
    speeds.map((key) => key.frame ?? key.distance ?? 0),
    (i) => `${at}.speeds[${i}]`,
  );
}

function rising(values: readonly number[], at: (index: number) => string): void {
  for (let i = 1; i < values.length; i++) {
    if (!(values[i] > values[i - 1])) {
      throw new ShotError(at(i), `${values[i]}`, `more than ${values[i - 1]}, the key before it`);
    }
  }
}

function unique(list: readonly { id: string }[], at: string): void {
  const seen = new Map<string, number>();
  list.forEach(({ id }, i) => {
    const before = seen.get(id);
    if (before !== undefined) {
      throw new ShotError(`${at}[${i}].id`, inWords(id), `an id unlike that of ${at}[${before}]`);
    }
    seen.set(id, i);
  });
}

function refuseUnknown(at: string, id: string, noun: string, list: readonly { id: string }[]): void {
  if (list.some((entry) => entry.id === id)) return;
  const shown = list.slice(0, 12).map((entry) => entry.id);
  const rest = list.length > shown.length ? `, and ${list.length - shown.length} more` : '';
  throw new ShotError(
    at,
    `no ${noun} ${inWords(id)}`,
    list.length === 0 ? `a ${noun} that exists; there are none` : `one of: ${shown.join(', ')}${rest}`,
  );
}

function exactlyOne(at: string, choices: Record<string, unknown>): void {
  const given = Object.keys(choices).filter((key) => choices[key] !== undefined);
  if (given.length === 1) return;
  throw new ShotError(
    at,
    given.length === 0 ? 'neither' : given.join(' and '),
    `exactly one of ${Object.keys(choices).join(', ')}`,
  );
}
