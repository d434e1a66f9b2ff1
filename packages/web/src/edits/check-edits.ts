import { isDismissalOf, type CheckLimits, type Finding, type Shot } from '@fleet-rail/core';
import type { Edit } from './edit';

const withChecks = (shot: Shot, change: (checks: Shot['checks']) => Shot['checks']): Shot => ({
  ...shot,
  checks: change(shot.checks),
});

/** Lets a finding be for a reason, as bad as it is now and no worse. */
export const dismissFinding =
  (finding: Finding, reason: string): Edit =>
  (shot) => {
    const { kind, rider, other, part, figure } = finding;
    return withChecks(shot, (checks) => ({
      ...checks,
      dismissed: [
        ...checks.dismissed.filter((one) => !isDismissalOf(one, finding)),
        { kind, rider, other, part, reason, figure },
      ],
    }));
  };

/** A finding that was let be is told of again. */
export const showFindingAgain =
  (finding: Finding): Edit =>
  (shot) =>
    withChecks(shot, (checks) => ({
      ...checks,
      dismissed: checks.dismissed.filter((one) => !isDismissalOf(one, finding)),
    }));

export const changeLimit =
  (key: keyof CheckLimits, value: number): Edit =>
  (shot) =>
    withChecks(shot, (checks) => ({ ...checks, limits: { ...checks.limits, [key]: value } }));
