import type { PlannedPicture } from '@fleet-rail/core/shots';

/** Planned pictures as they are stored. */
export interface PlanText {
  readonly count: number;
  /** The list, JSON. */
  readonly text: string;
}

/** Planned pictures that were checked. */
export class CheckedPlan {
  constructor(readonly plan: PlanText) {}

  static from(pictures: readonly PlannedPicture[]): CheckedPlan {
    return new CheckedPlan({ count: pictures.length, text: JSON.stringify(pictures) });
  }
}
