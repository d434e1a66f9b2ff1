import type { Severity } from '@fleet-rail/core';
import { useTheme } from 'styled-components';

/** A full ring for a fault, a half one for a warning, an empty one for a note: shape before colour. */
export function SeverityRing({ severity }: { severity: Severity }) {
  const theme = useTheme();
  const color = { fault: theme.signal, warning: theme.attention, note: theme.quiet }[severity];
  return (
    <svg width={16} height={16} viewBox="0 0 16 16" role="img" aria-label={severity}>
      <circle cx={8} cy={8} r={6} fill="none" stroke={color} strokeWidth={2.5} />
      {severity === 'fault' && <circle cx={8} cy={8} r={6} fill={color} />}
      {severity === 'warning' && <path d="M8 2 A6 6 0 0 0 8 14 Z" fill={color} />}
    </svg>
  );
}
