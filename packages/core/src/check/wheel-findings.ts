import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { framesText, stretchesOver } from './stretches.js';

/** Wheels that do not turn, slide, blur, or have another size than the model’s. */
export function findWheels(look: RiderLook): RawFinding[] {
  if (look.rider.attachment === null || look.curve === null) return [];
  return [...still(look), ...radiusOff(look), ...slides(look), ...fast(look)];
}

function rigOf({ rider, scene }: RiderLook) {
  return scene.models.get(rider.model ?? '')?.rig ?? null;
}

function still(look: RiderLook): RawFinding[] {
  const { rider } = look;
  const wheels = rigOf(look)?.wheels ?? [];
  if (rider.kind !== 'vehicle' || rider.wheels.length > 0 || wheels.length === 0) return [];
  return [
    found(
      'wheels-still',
      'warning',
      { rider: rider.id, figure: wheels.length, unit: 'wheels', fix: 'take-rig' },
      ({ rider: badge, model }) =>
        `${badge(rider.id)} moves with its wheels still: ${model(rider.model ?? '')} has ${wheels.length} that could roll.`,
    ),
  ];
}

function radiusOff(look: RiderLook): RawFinding[] {
  const { rider, limits, evaluated, first, count } = look;
  const own = new Map(rigOf(look)?.wheels.map((wheel) => [wheel.node, wheel]));
  let [most, node, is, was] = [limits.radius, '', 0, 0];
  for (const wheel of rider.wheels) {
    const real = own.get(wheel.node)?.radius;
    if (real === undefined) continue;
    const off = Math.abs(wheel.radius / real - 1);
    if (off > most) [most, node, is, was] = [off, wheel.node, wheel.radius, real];
  }
  if (node === '') return [];
  // A wrong radius makes the wheel turn too much or too little: over the shot that adds up to this much slip.
  const turns = evaluated.gauges(rider).find(({ kind, part }) => kind === 'turns' && part === node);
  const turned = turns ? Math.abs(turns.value(first + count - 1) - turns.value(first)) : 0;
  const slip = 2 * Math.PI * turned * Math.abs(is - was) * Math.max(...rider.rest.scale.map(Math.abs));
  return [
    found(
      'radius-off',
      'note',
      { rider: rider.id, part: node, figure: most, unit: 'of the radius', fix: 'take-radius' },
      ({ rider: badge }) =>
        `${badge(rider.id)}: "${node}" rolls with a radius of ${is.toFixed(3)} m, but the model’s is ${was.toFixed(3)} m: it slips by ${slip.toFixed(2)} m over the shot.`,
    ),
  ];
}

/** A wheel that cannot steer is pulled sideways where its axle does not follow. */
function slides(look: RiderLook): RawFinding[] {
  const { rider, evaluated, limits, first, count } = look;
  const gauges = evaluated.gauges(rider).filter(({ kind }) => kind === 'slip');
  if (gauges.length === 0) return [];
  const parts = new Map<number, string>();
  const most = (i: number): number => {
    let value = 0;
    for (const gauge of gauges) {
      const now = Math.abs(gauge.value(first + i));
      if (now > value) {
        value = now;
        parts.set(first + i, gauge.part);
      }
    }
    return value;
  };
  const all = stretchesOver(look, count, limits.wheelSlide, most);
  if (all.length === 0) return [];
  const { worst, frame } = all.reduce((a, b) => (b.worst > a.worst ? b : a));
  const frames = { from: all[0].from, to: all[all.length - 1].to };
  const part = parts.get(frame) ?? '';
  return [
    found(
      'wheel-slide',
      'warning',
      {
        rider: rider.id,
        part,
        ...frames,
        frame,
        distance: look.distanceAt(frame),
        figure: worst,
        unit: 'm/s',
        fix: 'anchor',
      },
      ({ rider: badge }) =>
        `${badge(rider.id)}: "${part}" slides sideways, ${worst.toFixed(2)} m/s at frame ${frame}; ${framesText(frames)}.`,
    ),
  ];
}

function fast(look: RiderLook): RawFinding[] {
  const { rider, evaluated, limits, first, count } = look;
  const turns = evaluated.gauges(rider).filter(({ kind }) => kind === 'turns');
  let [most, part, when] = [limits.wheelTurns, '', 0];
  let [from, to] = [Infinity, -Infinity];
  for (const gauge of turns) {
    let before = gauge.value(first);
    for (let i = 1; i < count; i++) {
      const now = gauge.value(first + i);
      const turned = Math.abs(now - before);
      if (turned > limits.wheelTurns) [from, to] = [Math.min(from, first + i), Math.max(to, first + i)];
      // The first of frames that are alike.
      if (turned > most * (1 + 1e-9)) [most, part, when] = [turned, gauge.part, first + i];
      before = now;
    }
  }
  if (part === '') return [];
  return [
    found(
      'fast-wheel',
      'note',
      {
        rider: rider.id,
        part,
        frame: when,
        from,
        to,
        distance: look.distanceAt(when),
        figure: most,
        unit: 'turns a frame',
      },
      ({ rider: badge }) =>
        `${badge(rider.id)}: "${part}" turns ${most.toFixed(2)} times a frame at frame ${when}, and too fast ${framesText({ from, to })}; it will seem to stop or turn backward.`,
    ),
  ];
}
