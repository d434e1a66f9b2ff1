import type { Gait } from '@fleet-rail/core';

/** Changes a part of the selected rider's walk; values of one drag share a gesture. */
export type ChangeGait = (part: Partial<Gait>, gesture?: string) => void;
