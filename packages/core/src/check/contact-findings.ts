import type { Rider } from '../document/shot-rider.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { GaugeKind } from '../evaluate/gauges.js';
import { hierarchyOfRider } from '../evaluate/scene-assets.js';
import { clipNamed, nodeNamed } from '../hierarchy/node-hierarchy.js';
import { sourceFrame } from '../timing/index.js';
import type { Finding } from './finding.js';

/** A foot that slides further than this while it is down is told of, metres. */
const SLIDE = 0.005;
/** One whose sole comes so much lower than its clips have it, metres. */
const SUNK = 0.003;
/** And a wheel that slides sideways faster than this, m/s. */
const SLIP = 0.1;

/**
 * What there is to say about how one rider meets the ground: levels without ground, parts and clips its model lacks, steps
 * that are too quick, feet that slide. It looks at every frame, so it is asked for by rider, and again only where that changed.
 */
export function findContact(evaluated: EvaluatedShot, rider: Rider, index: number): Finding[] {
  const at = `riders[${index}]`;
  return [
    ...groundFindings(evaluated, rider, at),
    ...partFindings(evaluated, rider, at),
    ...slipFindings(evaluated, rider, at),
    ...gaitFindings(evaluated, rider, at),
  ].map(([where, message]) => ({ severity: 'attention', at: where, message }));
}

type Said = [at: string, message: string];

function groundFindings(evaluated: EvaluatedShot, rider: Rider, at: string): Said[] {
  const { shot, assets } = evaluated;
  const { hitch, badge } = rider;
  if (hitch === null) return [];
  const sticks = hitch.ground.mode === 'stick';
  const where = sticks ? `${at}.hitch.ground` : `${at}.hitch.facing.reference`;
  if (!sticks && hitch.facing.reference !== 'ground') return [];
  if (shot.ground.model === null)
    return [[where, `${badge} goes by the ground, but the shot has none; choose a ground model.`]];
  if (assets.ground === null) return [];
  const { groundFit, progress } = evaluated.contact(rider);
  if (groundFit === null) return [];
  const missing = stretches(evaluated, (frame) => groundFit.missing(progress(frame)));
  if (missing.length === 0) return [];
  const { up, down } = hitch.ground;
  const frames = missing.map(([from, to]) => (from === to ? `${from}` : `${from}–${to}`));
  return [
    [
      where,
      `Under ${badge} there is no ground within ${up} m above and ${down} m below its path at ${missing.length === 1 && missing[0][0] === missing[0][1] ? 'frame' : 'frames'} ${listed(frames)}; it keeps the last good height.`,
    ],
  ];
}

function partFindings({ shot, assets }: EvaluatedShot, rider: Rider, at: string): Said[] {
  const hierarchy = hierarchyOfRider(assets, rider);
  if (hierarchy === null) return [];
  const model = shot.models.find(({ id }) => id === rider.model)?.name ?? 'Its model';
  const said: Said[] = [];
  const node = (where: string, name: string | null) => {
    if (name !== null && nodeNamed(hierarchy, name) < 0)
      said.push([`${at}.${where}`, `${rider.badge}: ${model} has no part "${name}"; it does not move.`]);
  };
  const clip = (where: string, name: string | null) => {
    if (name === null || clipNamed(hierarchy, name)) return;
    const own = hierarchy.clips.map((one) => `"${one.name}"`);
    said.push([
      `${at}.${where}`,
      `${rider.badge}: ${model} has no clip "${name}"; it has ${own.length === 0 ? 'none' : listed(own)}.`,
    ]);
  };
  rider.wheels.forEach((wheel, i) => node(`wheels[${i}].node`, wheel.node));
  rider.cycles.forEach((cycle, i) => node(`cycles[${i}].node`, cycle.node));
  node('steering.node', rider.steering.node);
  node('body.node', rider.body.node);
  node('ball.node', rider.ball?.node ?? null);
  const { gait } = rider;
  if (gait === null) return said;
  clip('gait.clip', gait.clip);
  clip('gait.idle', gait.idle);
  gait.acts.forEach((act, i) => clip(`gait.acts[${i}].clip`, act.clip));
  gait.feet.forEach((foot, i) => node(`gait.feet[${i}].node`, foot.node));
  return said;
}

/** A vehicle that steers can roll without sliding, if its other axle is on the path; what is towed, if it hangs at its coupling. */
function slipFindings(evaluated: EvaluatedShot, rider: Rider, at: string): Said[] {
  const towed = Boolean(rider.hitch?.follows);
  if (!towed && !rider.wheels.some(({ steers }) => steers)) return [];
  const { first, last } = evaluated.shot.range;
  let [worst, when, where] = [SLIP, first, ''];
  for (const { kind, part, value } of evaluated.gauges(rider)) {
    if (kind !== 'slip') continue;
    for (let frame = first; frame <= last; frame++) {
      const speed = Math.abs(value(frame));
      if (speed > worst) [worst, when, where] = [speed, frame, part];
    }
  }
  if (where === '') return [];
  return [
    [
      `${at}.hitch.anchor`,
      `${rider.badge}: "${where}" slides sideways, ${worst.toFixed(2)} m/s at frame ${when}, since it does not steer; ${
        towed ? 'let it be towed by its coupling' : 'put the rear axle on the path'
      } (Facing, Axles and couplings).`,
    ],
  ];
}

function gaitFindings(evaluated: EvaluatedShot, rider: Rider, at: string): Said[] {
  const { gait, badge } = rider;
  if (gait === null || rider.hitch === null) return [];
  const said: Said[] = [];
  if (gait.feet.length === 0)
    said.push([
      `${at}.gait.feet`,
      `${badge} walks without known feet: sliding is neither measured nor prevented. Measure them from the model, or name them.`,
    ]);
  const gauges = evaluated.gauges(rider);
  const cadence = gauges.find(({ kind }) => kind === 'cadence');
  let [worst, when] = [0, 0];
  for (let frame = evaluated.shot.range.first; cadence && frame <= evaluated.shot.range.last; frame++) {
    const value = cadence.value(frame);
    if (value > worst) [worst, when] = [value, frame];
  }
  if (worst > gait.cadence)
    said.push([
      `${at}.gait`,
      `${badge} takes ${worst.toFixed(1)} steps/s at frame ${when}; its limit is ${gait.cadence}. Slow it down there, or give it a longer stride.`,
    ]);
  const worstOf = (kind: GaugeKind, least: number) => {
    let found = { part: '', frame: 0, value: least };
    for (const gauge of gauges.filter((one) => one.kind === kind))
      for (let frame = evaluated.shot.range.first; frame <= evaluated.shot.range.last; frame++) {
        const value = gauge.value(frame) / 1e3;
        if (value > found.value) found = { part: gauge.part, frame, value };
      }
    return found.part === '' ? null : found;
  };
  const slid = worstOf('slide', SLIDE);
  if (slid)
    said.push([
      `${at}.gait.plant`,
      gait.plant
        ? `${badge}: "${slid.part}" slides ${millimetres(slid.value)} at frame ${slid.frame}, since the leg does not reach; shorten the stride or slow down there.`
        : `${badge}: "${slid.part}" slides ${millimetres(slid.value)} while it stands at frame ${slid.frame}; lock its feet to the ground, or correct the stride.`,
    ]);
  const sunk = worstOf('under', SUNK);
  if (sunk)
    said.push([
      `${at}.gait.feet`,
      `${badge}: "${sunk.part}" is ${millimetres(sunk.value)} lower than its clips have it at frame ${sunk.frame}; lock its feet to the ground.`,
    ]);
  return said;
}

const millimetres = (metres: number) => `${Math.round(metres * 1e3)} mm`;

/** Runs of frames at which something holds, in the time of the shot. */
function stretches({ shot }: EvaluatedShot, holds: (frame: number) => boolean): [number, number][] {
  const found: [number, number][] = [];
  for (let frame = shot.range.first; frame <= shot.range.last; frame++) {
    if (!holds(sourceFrame(shot, frame))) continue;
    const last = found[found.length - 1];
    if (last && last[1] === frame - 1) last[1] = frame;
    else found.push([frame, frame]);
  }
  return found;
}

function listed(entries: readonly string[], most = 4): string {
  const shown = entries.slice(0, most).join(', ');
  return entries.length > most ? `${shown} and ${entries.length - most} more` : shown;
}
