import { quat, vec3 } from 'gl-matrix';
import type { Shake } from '../../document/shot-shake.js';
import { RADIANS } from '../../geometry/math/angle.js';
import { seededNumbers } from '../../geometry/math/seeded.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { POSE, type PoseAt } from './pose.js';

/** Waves that make up the shake of one channel. */
const WAVES = 6;
/** How much slower and faster than the rate they are. */
const [SLOWEST, FASTEST] = [0.35, 2.2];

interface Wave {
  /** Radians a frame. */
  readonly speed: number;
  readonly phase: number;
  readonly size: number;
}

/**
 * A pose with the shake of a hand: each channel is a sum of waves about the rate, slow ones larger, the sum of their sizes being
 * the amount, so it never strays further. In a loop each goes to and fro whole times.
 */
export function withShake(
  pose: PoseAt,
  { place, turn, rate, seed }: Shake,
  {
    first,
    last,
    fps,
    loop,
  }: { readonly first: number; readonly last: number; readonly fps: number; readonly loop: boolean },
): PoseAt {
  const frames = last - first + 1;
  const channel = (index: number, amount: number): ((frame: number) => number) => {
    const random = seededNumbers(seed, index);
    const waves = Array.from({ length: WAVES }, (_, i): Wave => {
      // From slow to fast in even steps of the ear, each a little off its own.
      const step = (i + 0.5 * random()) / (WAVES - 1);
      const wished = (rate * SLOWEST * (FASTEST / SLOWEST) ** step) / fps;
      const speed = loop ? Math.max(1, Math.round(wished * frames)) / frames : wished;
      return { speed: 2 * Math.PI * speed, phase: Math.PI * random(), size: 1 / (i + 1) };
    });
    const all = waves.reduce((sum, { size }) => sum + size, 0);
    return (frame) => {
      let sum = 0;
      for (const { speed, phase, size } of waves) sum += size * Math.sin(speed * (frame - first) + phase);
      return (amount * sum) / all;
    };
  };
  const places = [0, 1, 2].map((k) => channel(k, place));
  const [up, aside, roll] = [
    channel(3, turn * RADIANS),
    channel(4, turn * RADIANS),
    channel(5, (turn * RADIANS) / 2),
  ];
  const own: Quat = [0, 0, 0, 1];
  const step: Vec3 = [0, 0, 0];
  return (frame, out, at) => {
    pose(frame, out, at);
    for (let k = 0; k < 4; k++) own[k] = out[at + POSE.rotation + k];
    for (let k = 0; k < 3; k++) step[k] = places[k](frame);
    vec3.transformQuat(step, step, own);
    for (let k = 0; k < 3; k++) out[at + k] += step[k];
    quat.rotateX(own, own, up(frame));
    quat.rotateY(own, own, aside(frame));
    quat.rotateZ(own, own, roll(frame));
    for (let k = 0; k < 4; k++) out[at + POSE.rotation + k] = own[k];
  };
}
