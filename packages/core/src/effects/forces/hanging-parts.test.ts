import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { CARRIER, HangingParts, SWING, swingBetween, type HangingSpec } from './hanging-parts.js';

const G = 9.80665;
const FPS = 24;
const part = (more: Partial<HangingSpec> = {}): HangingSpec => ({
  joint: { kind: 'ball' },
  mass: 5,
  middle: [0, -0.8, 0],
  at: [0, 0, 0],
  stiffness: 0,
  damping: 0,
  ...more,
});
const hinge = { kind: 'hinge', axis: [1, 0, 0] as Vec3 } as const;

interface Carrier {
  place?: Vec3;
  turn?: Quat;
  velocity?: Vec3;
  spin?: Vec3;
}

/** States by frame of a part whose rider is given by frame. */
function swung(spec: HangingSpec, frames: number, at: (seconds: number) => Carrier) {
  const parts = new HangingParts([spec], FPS);
  const inputs = (frame: number) => {
    const {
      place = [0, 0, 0],
      turn = [0, 0, 0, 1],
      velocity = [0, 0, 0],
      spin = [0, 0, 0],
    } = at(frame / FPS);
    return Float64Array.from([...place, ...turn, ...velocity, ...spin]);
  };
  expect(inputs(0)).toHaveLength(CARRIER.numbers);
  const states = new Float64Array(SWING.numbers * frames);
  parts.begin(inputs(0), states, 0);
  for (let i = 1; i < frames; i++) parts.step(inputs(i - 1), inputs(i), states, i * SWING.numbers);
  return (frame: number) => {
    const out = new Float64Array(SWING.numbers);
    swingBetween(states, SWING.numbers, 0, frame, frames, FPS, out);
    return [...out];
  };
}

/** In the rest pose of this model the bar is at an angle: it begins there. */
const leaning = (angle: number, length = 0.8): Vec3 => [
  0,
  -length * Math.cos(angle),
  length * Math.sin(angle),
];

describe.each(['ball', 'hinge'] as const)('on a %s', (kind) => {
  const joint = kind === 'ball' ? ({ kind: 'ball' } as const) : hinge;
  /** How far it hangs out ahead, radians, whatever it hangs on. */
  const outOf = (begin: number) => (state: number[]) =>
    kind === 'ball' ? Math.atan2(state[2], -state[1]) : begin - state[0];

  it.each([0.1, 1, 2.5])('begun at %f rad it swings with the period of its elliptic integral', (angle) => {
    const at = swung(part({ joint, middle: leaning(angle) }), 400, () => ({}));
    const out = outOf(angle);
    const crossings: number[] = [];
    for (let frame = 0; frame < 398; frame += 0.01) {
      const [a, b] = [out(at(frame)), out(at(frame + 0.01))];
      if (a > 0 && b <= 0) crossings.push(frame + (0.01 * a) / (a - b));
    }
    // 4 √(l / g) K(sin θ/2), by the arithmetic-geometric mean: 2π √(l / g) / agm(1, cos θ/2).
    let [a, b] = [1, Math.cos(angle / 2)];
    for (let i = 0; i < 30; i++) [a, b] = [(a + b) / 2, Math.sqrt(a * b)];
    const period = (2 * Math.PI * Math.sqrt(0.8 / G)) / a;
    const measured = (crossings[crossings.length - 1] - crossings[0]) / (crossings.length - 1) / FPS;
    expect(measured / period).toBeCloseTo(1, 5);
  });

  it('undamped it comes back to where it began, minute after minute; damped it loses what it is to lose', () => {
    const top = (damping: number, from: number) => {
      const at = swung(part({ joint, middle: leaning(0.2), damping }), 24 * 60, () => ({}));
      const angles = Array.from({ length: 600 }, (_, i) => outOf(0.2)(at(from + i / 10)));
      return Math.max(...angles);
    };
    expect(top(0, 24 * 57) / 0.2).toBeCloseTo(1, 5);
    // Half of the rate is what the swing loses; over some two seconds round the tenth.
    const [early, late] = [top(0.3, 24 * 10), top(0.3, 24 * 20)];
    expect(Math.abs(Math.log(early / late) / (0.15 * 10) - 1)).toBeLessThan(0.2);
  });

  it('behind what goes ever faster it comes to hang back by atan(a / g)', () => {
    const a = 3;
    const at = swung(part({ joint, damping: 4 }), 240, (t) => ({
      place: [0, 0, (a * t * t) / 2],
      velocity: [0, 0, a * t],
    }));
    expect(-outOf(0)(at(230))).toBeCloseTo(Math.atan(a / G), 4);
  });

  it('a spring holds it against gravity', () => {
    // Standing out level: m g l cos φ down, k (π/2 − φ) up.
    const at = swung(part({ joint, middle: [0, 0, 0.8], damping: 6, stiffness: 100 }), 480, () => ({}));
    const out = kind === 'ball' ? Math.atan2(-at(470)[1], at(470)[2]) : at(470)[0];
    expect(5 * G * 0.8 * Math.cos(out) - 100 * out).toBeCloseTo(0, 4);
  });
});

it('carried round in a circle, and turned with it, it hangs out as on a roundabout', () => {
  // Steady: tan φ = ω² (r + l sin φ) / g.
  const [rate, radius] = [1.5, 2];
  const at = swung(part({ damping: 3, at: [radius, 0, 0] }), 480, (t) => {
    const turn = quat.setAxisAngle([0, 0, 0, 1], [0, 1, 0], rate * t) as Quat;
    return { turn, spin: [0, rate, 0] };
  });
  const seconds = 460 / FPS;
  const outward = vec3.transformQuat(
    [0, 0, 0],
    [1, 0, 0],
    quat.setAxisAngle([0, 0, 0, 1], [0, 1, 0], rate * seconds),
  );
  const [x, y, z] = at(460);
  const sine = vec3.dot([x, y, z], outward);
  expect(-sine / y).toBeCloseTo((rate ** 2 * (radius + 0.8 * sine)) / G, 3);
  expect(Math.hypot(x, y, z)).toBeCloseTo(1, 9);
});

it('a hinge is thrown outward by turning as well', () => {
  // Its axis lies along the circle: the same balance as on a ball joint.
  const [rate, radius] = [1.5, 2];
  const axis: Vec3 = [0, 0, 1];
  const at = swung(part({ joint: { kind: 'hinge', axis }, damping: 3, at: [radius, 0, 0] }), 480, (t) => ({
    turn: quat.setAxisAngle([0, 0, 0, 1], [0, 1, 0], rate * t) as Quat,
    spin: [0, rate, 0],
  }));
  const [angle] = at(460);
  expect(Math.tan(angle)).toBeCloseTo((rate ** 2 * (radius + 0.8 * Math.sin(angle))) / G, 4);
});

it('the stiffest springs and the shortest bars stay where they are held', () => {
  for (const spec of [
    part({ stiffness: 1e7 }),
    part({ middle: [0, -1e-4, 0], stiffness: 1e3 }),
    part({ damping: 1e3, mass: 1e-3 }),
    part({ joint: hinge, stiffness: 1e7, damping: 1e3 }),
  ]) {
    const at = swung(spec, 48, (t) => ({
      place: [0, Math.sin(9 * t), t],
      velocity: [0, 9 * Math.cos(9 * t), 1],
    }));
    for (let frame = 0; frame < 48; frame++) {
      const state = at(frame);
      expect(state.every(Number.isFinite)).toBe(true);
      expect(spec.joint.kind === 'ball' ? -state[1] : Math.cos(state[0])).toBeGreaterThan(0.9);
    }
  }
});
