import type { Vec3 } from './vector.js';
import { Amount, Id, OneOf, Nested, Point, Whole, rule, orNull } from './constraints.js';
import { LIMITS } from './limits.js';

export const ARRANGEMENTS = ['file', 'abreast', 'wedge', 'later', 'moved'] as const;

/** The most that each member is varied by, to either side. */
export class FormationVary {
  @Amount('metres', 0, 1e4) place = 0;
  @Amount('frames', 0, 1e5) time = 0;
  @Amount('part of its speed', 0, 0.9) speed = 0;
  @Amount('part of its amplitudes', 0, 0.9) amplitude = 0;
}

const areMembers = (v: unknown) =>
  Array.isArray(v) && v.length <= LIMITS.riders && v.every((id) => id === null || typeof id === 'string');

/** Copies of a rider and how they were placed about it, so that they can be placed anew. */
export class ShotFormation {
  @Id() id!: string;
  @Id() leader!: string;
  /** By number, from the first; null for one that has left. */
  @rule('ids of riders, or null', areMembers, {
    type: 'array',
    items: orNull({ type: 'string' }),
    maxItems: LIMITS.riders,
  })
  members: (string | null)[] = [];
  /** In file, side by side, in a wedge; each delayed by frames; or the whole ride moved and turned again. */
  @OneOf(...ARRANGEMENTS) arrangement: (typeof ARRANGEMENTS)[number] = 'file';
  /** From one to the next. */
  @Amount('metres', -1e6, 1e6) spacing = 0;
  @Amount('frames', -1e6, 1e6) delay = 0;
  @Point() step: Vec3 = [0, 0, 0];
  /** About where the leader started. */
  @Amount('degrees') turn = 0;
  @Point() about: Vec3 = [0, 0, 0];
  @Whole(0, 2 ** 31 - 1) seed = 0;
  @Nested(() => FormationVary) vary: FormationVary = new FormationVary();
}
