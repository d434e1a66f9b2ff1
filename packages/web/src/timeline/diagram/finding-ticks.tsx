import type { Severity } from '@fleet-rail/core';
import { useTheme } from 'styled-components';
import { KIND_NAMES } from '../../ui/words/finding-words';
import { useDesk, useDeskStore } from '../../state/desk-store';
import type { DiagramBand, DiagramScales } from './diagram-scales';

/** Findings of the selected rider, as marks on its line: a full ring, half of one, or an empty one. */
export function FindingTicks({ band, x }: { band: DiagramBand; x: DiagramScales['x'] }) {
  const theme = useTheme();
  const desk = useDeskStore();
  const riderId = useDesk((state) => state.riderId);
  const findings = useDesk((state) => state.checked?.findings);
  if (!band.riders.some(({ id }) => id === riderId)) return null;
  const color: Record<Severity, string> = {
    fault: theme.signal,
    warning: theme.attention,
    note: theme.quiet,
  };
  return (
    <g role="group" aria-label="Findings on the line">
      {findings?.map(({ kind, severity, rider, other, frame, distance, dismissed, from }) => {
        if (rider !== riderId || frame === null || distance === null || dismissed !== null) return null;
        const [px, py] = [x(frame), band.y(distance)];
        return (
          <g
            key={`${kind} ${other} ${from}`}
            transform={`translate(${px} ${py})`}
            onPointerDown={(event) => {
              event.stopPropagation();
              desk.getState().set({ playing: false });
              desk.getState().goToFrame(frame);
            }}
          >
            <title>{`${KIND_NAMES[kind]}, frame ${frame}`}</title>
            <line y1={-14} y2={0} stroke={color[severity]} strokeWidth={1.5} />
            <circle
              cy={-18}
              r={4.5}
              fill={severity === 'fault' ? color.fault : theme.panel}
              stroke={color[severity]}
              strokeWidth={2}
            />
            {severity === 'warning' && <path d="M0 -22.5 A4.5 4.5 0 0 0 0 -13.5 Z" fill={color.warning} />}
          </g>
        );
      })}
    </g>
  );
}
