import type { FindingKind, Dismissal } from '../document/shot-checks.js';
import type { Shot } from '../document/shot.js';

/** How bad it is: wrong for any eye, likely wrong, or worth knowing. */
export type Severity = 'fault' | 'warning' | 'note';

/** Finding of a check: one fault, from its first frame to its last. Absent values are null. */
export interface Finding {
  readonly kind: FindingKind;
  readonly severity: Severity;
  /** Ids of riders and of the path that are meant. */
  readonly rider: string | null;
  readonly other: string | null;
  readonly path: string | null;
  /** The wheel, foot, part, clip or cue that is meant. */
  readonly part: string | null;
  /** Frames of the shot. */
  readonly from: number | null;
  readonly to: number | null;
  /** The frame at which it is worst. */
  readonly frame: number | null;
  /** Metres along the rider’s path, or of the path that is meant, there. */
  readonly distance: number | null;
  /** How much, at its worst; it gets worse as this grows. */
  readonly figure: number | null;
  readonly unit: string | null;
  /** One or two sentences: what is so, and what follows from it. */
  readonly message: string;
  /** Kind of its fix, which is previewed before it is applied. */
  readonly fix: FixKind | null;
  /** Reason of its dismissal. */
  readonly dismissed: string | null;
}

/** Edits that may cure a finding. */
export const FIX_KINDS = [
  'stick',
  'lift',
  'keep-away',
  'detour',
  'narrow-band',
  'widen-bank',
  'smooth-path',
  'round-corner',
  'up-by-path',
  'face-travel',
  'turn-round',
  'drive',
  'smooth-keys',
  'take-rig',
  'take-radius',
  'anchor',
  'plant-feet',
  'shift-start',
  'close-loop',
  'past-doubled',
  'reach-end',
  'make-range',
  'start-along',
  'ride-lower',
  'switch-off',
  'set-off',
  'turn-freely',
  'slow-steps',
  'clip-stride',
] as const;
export type FixKind = (typeof FIX_KINDS)[number];

/** How what is found calls what the document has. */
export interface Names {
  /** A rider’s badge. */
  rider(id: string): string;
  path(id: string): string;
  model(id: string): string;
}

/** A finding before it is put in words: what it says follows the names, which may change without it. */
export interface RawFinding extends Omit<Finding, 'message' | 'dismissed'> {
  say(names: Names): string;
}

const ABSENT = {
  rider: null,
  other: null,
  path: null,
  part: null,
  from: null,
  to: null,
  frame: null,
  distance: null,
  figure: null,
  unit: null,
  fix: null,
} as const;

/** A finding of a kind; what is not given is absent. */
export function found(
  kind: FindingKind,
  severity: Severity,
  parts: Partial<RawFinding>,
  say: RawFinding['say'],
): RawFinding {
  return { kind, severity, ...ABSENT, ...parts, say };
}

export function namesOf({ riders, paths, models }: Pick<Shot, 'riders' | 'paths' | 'models'>): Names {
  const by = (list: readonly { id: string }[], name: (one: never) => string) => {
    const all = new Map(list.map((one) => [one.id, name(one as never)]));
    return (id: string) => all.get(id) ?? id;
  };
  const worn = new Map<string, number>();
  for (const { badge } of riders) worn.set(badge, (worn.get(badge) ?? 0) + 1);
  return {
    // Riders without badges of their own share one: then their names distinguish them.
    rider: by(riders, ({ badge, name }: { badge: string; name: string }) =>
      (worn.get(badge) ?? 0) > 1 ? `${badge} ${name}` : badge,
    ),
    path: by(paths, ({ name }: { name: string }) => name),
    model: by(models, ({ name }: { name: string }) => name),
  };
}

/** Findings with their messages, including dismissed ones. */
export function worded(findings: readonly RawFinding[], shot: Shot): Finding[] {
  const names = namesOf(shot);
  return findings.map(({ say, ...finding }) => ({
    ...finding,
    message: say(names),
    dismissed: dismissedBecause(finding, shot),
  }));
}

/** A figure that grew by less than this part counts as unchanged. */
const AS_BAD = 0.05;

/** Whether a dismissal is of a finding, however bad that is. */
export function isDismissalOf(
  dismissal: Dismissal,
  { kind, rider, other, part }: Pick<Finding, 'kind' | 'rider' | 'other' | 'part'>,
): boolean {
  return (
    dismissal.kind === kind &&
    (dismissal.rider === null || dismissal.rider === rider) &&
    (dismissal.other === null || dismissal.other === other) &&
    (dismissal.part === null || dismissal.part === part)
  );
}

function dismissedBecause(finding: Omit<RawFinding, 'say'>, { checks }: Shot): string | null {
  const { figure } = finding;
  const asBad = (then: number | null) =>
    then === null || figure === null || figure <= then + AS_BAD * Math.abs(then);
  const dismissal = checks.dismissed.find((one) => isDismissalOf(one, finding) && asBad(one.figure));
  return dismissal?.reason ?? null;
}

const RANK: Readonly<Record<Severity, number>> = { fault: 0, warning: 1, note: 2 };

/** Faults first, then warnings, then notes; dismissed findings last. */
export function worstFirst(findings: readonly Finding[]): Finding[] {
  const rank = ({ severity, dismissed }: Finding) => RANK[severity] + (dismissed === null ? 0 : 3);
  return [...findings].sort((a, b) => rank(a) - rank(b));
}
