import type { FindingKind } from '../document/shot-checks.js';
import type { GaugeKind } from '../shot/evaluate/gauges.js';
import { found, type RawFinding, type FixKind } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { framesText, stretchesOver, type Stretch } from './stretches.js';

/** Visible faults of a walk: feet that slide, sink or do not reach, and steps that are too quick. */
export function findGaitFaults(look: RiderLook): RawFinding[] {
  const { rider, limits } = look;
  const { gait } = rider;
  if (gait === null || rider.attachment === null) return [];
  const findings: RawFinding[] = [];
  if (gait.feet.length === 0)
    findings.push(
      found(
        'loose-end',
        'warning',
        { rider: rider.id, part: gait.clip },
        ({ rider: badge }) =>
          `${badge(rider.id)} walks without known feet: sliding is neither measured nor prevented. Measure them from the model, or name them.`,
      ),
    );
  const plants = gait.plant;
  findings.push(
    ...worstOf(
      look,
      'cadence',
      gait.cadence,
      'steps-quick',
      'steps/s',
      'slow-steps',
      (badge, _, { worst, frame, ...frames }) =>
        `${badge} takes ${worst.toFixed(1)} steps/s at frame ${frame}; its limit is ${gait.cadence}, ${framesText(frames)}. Slow it down there, or give it a longer stride.`,
    ),
    ...worstOf(
      look,
      'slide',
      limits.feetSlide * 1e3,
      plants ? 'out-of-reach' : 'feet-slide',
      'mm',
      plants ? 'clip-stride' : 'plant-feet',
      (badge, part, { worst, frame, ...frames }) =>
        plants
          ? `${badge}: "${part}" slides ${worst.toFixed(0)} mm at frame ${frame}, since the leg does not reach; ${framesText(frames)}. Shorten the stride or slow down there.`
          : `${badge}: "${part}" slides ${worst.toFixed(0)} mm while it stands at frame ${frame}; ${framesText(frames)}.`,
    ),
    ...worstOf(
      look,
      'under',
      limits.feetUnder * 1e3,
      'feet-under',
      'mm',
      plants ? null : 'plant-feet',
      (badge, part, { worst, frame, ...frames }) =>
        `${badge}: "${part}" is ${worst.toFixed(0)} mm under ${rider.attachment?.ground.mode === 'stick' && look.evaluated.assets.ground ? 'the ground' : 'where its clips have it'} at frame ${frame}; ${framesText(frames)}.`,
    ),
  );
  return findings;
}

/** The worst of all gauges of a kind over a limit: both feet slide for the same reason. */
function worstOf(
  look: RiderLook,
  kind: GaugeKind,
  limit: number,
  as: FindingKind,
  unit: string,
  fix: FixKind | null,
  say: (badge: string, part: string, stretch: Stretch) => string,
): RawFinding[] {
  const { evaluated, rider, first, count } = look;
  const gauges = evaluated.gauges(rider).filter((gauge) => gauge.kind === kind);
  const parts = new Map<number, string>();
  const most = (i: number): number => {
    let value = 0;
    for (const gauge of gauges) {
      const now = gauge.value(first + i);
      if (now > value) {
        value = now;
        parts.set(first + i, gauge.part);
      }
    }
    return value;
  };
  const all = stretchesOver(look, gauges.length === 0 ? 0 : count, limit, most);
  if (all.length === 0) return [];
  // All steps of a walk share one finding: the worst of them, over all frames.
  const worst = all.reduce((a, b) => (b.worst > a.worst ? b : a));
  const whole = { ...worst, from: all[0].from, to: all[all.length - 1].to };
  const part = parts.get(worst.frame) ?? '';
  return [
    found(
      as,
      'warning',
      {
        rider: rider.id,
        part,
        from: whole.from,
        to: whole.to,
        frame: whole.frame,
        distance: look.distanceAt(whole.frame),
        figure: whole.worst,
        unit,
        fix,
      },
      ({ rider: badge }) => say(badge(rider.id), part, whole),
    ),
  ];
}
