import { Amount, Id, NestedList, rule, orNull } from './constraints.js';
import { LIMITS } from './limits.js';

/** Something that a rider keeps away from. */
export class ClearOf {
  @Id() rider!: string;
  /** Between the two origins. */
  @Amount('metres', 0, 1e6) distance = 4;
}

/** Clearances of a rider on a path, whatever its path does. */
export class Clearance {
  /** How far above the ground it stays at least. */
  @rule(
    'a number of metres from 0 to 1000000, or null',
    (v) => v === null || (typeof v === 'number' && v >= 0 && v <= 1e6),
    orNull({ type: 'number', minimum: 0, maximum: 1e6 }),
  )
  floor: number | null = null;
  @NestedList(() => ClearOf, LIMITS.partsPerRider) from: ClearOf[] = [];
  /** Over so long it is led away and back. */
  @Amount('seconds', 0, 60) ease = 1;
}
