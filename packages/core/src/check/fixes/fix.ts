import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { EvaluatedShot } from '../../shot/evaluate/evaluate-shot.js';
import type { CheckScene } from '../check-scene.js';
import type { RawFinding } from '../finding.js';

/** A fix of a finding, previewed before it is applied. */
export interface Fix {
  /** A verb for a button. */
  readonly label: string;
  /** Its change, in numbers. */
  readonly detail: string;
  readonly shot: Shot;
}

/** The finding to fix: of a rider, in an evaluated shot. */
export interface FixContext {
  readonly evaluated: EvaluatedShot;
  readonly shot: Shot;
  readonly scene: CheckScene;
  readonly rider: Rider;
  readonly finding: RawFinding;
}

/**
 * Tries of one way, the least change first: the first that cures is the one that is offered.
 */
export type FixAttempts = Iterable<Fix>;

/** The ways that there may be out of a finding. */
export type Ways = (patient: FixContext) => readonly FixAttempts[];

/** A number of metres as a sentence has it. */
export const metres = (value: number): string => `${Number(value.toFixed(2))} m`;
