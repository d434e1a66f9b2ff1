import { isDismissalOf, type CheckLimits, type Finding, type Shot } from '@fleet-rail/core';
import type { Edit } from './edit';

const withChecks = (shot: Shot, change: (checks: Shot['checks']) => Shot['checks']): Shot => ({
  ...shot,
  checks: change(shot.checks),
});

/** Dismisses a finding for a reason, up to its present figure. */
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

/** Shows a dismissed finding again. */
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
