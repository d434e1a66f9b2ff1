// A way that the tests of what rolls go along; not part of what core gives.
import type { ChassisTrack } from '../src/motion/ride/chassis-motion.js';

/** A level track along +z that begins far behind its origin, and the number of samples taken. */
export function straightWay(from: number, to: number): ChassisTrack & { looks: number } {
  return {
    looks: 0,
    byDistance: true,
    at(s, out) {
      this.looks++;
      out.set([0, 0, s, 1, 0, 0, 0, 1, 0, 0, 0, 1]);
    },
    from,
    to,
    closed: false,
    origin: 0,
    joints: [],
    bend: () => 0,
  };
}
