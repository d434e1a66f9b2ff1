import type { Rider } from '@fleet-rail/core';
import type { ScaleLinear } from 'd3-scale';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { placeKey } from '../../edits/rider-edits';
import { lineColor } from '../../theme/theme';
import { showNumber } from '../../ui/quantity';
import { useDesk, useDeskStore } from '../desk-store';

const Knob = styled.circle`
  fill: ${({ theme }) => theme.panel};
  stroke-width: 3;
  cursor: grab;
  &:focus-visible {
    outline: 2px solid ${({ theme }) => theme.ink};
    outline-offset: 2px;
  }
`;

/** Keyboard steps: a frame across; up by a tenth of a metre, or a hundredth of a lap. */
const STEP = { metres: 0.1, laps: 0.01 };

/** The keys of the selected rider's pace, dragged in the diagram or nudged by arrow keys. */
export function DiagramKeys(props: {
  rider: Rider;
  x: ScaleLinear<number, number>;
  y: ScaleLinear<number, number>;
  pathLength: number;
}) {
  const { rider, x, y, pathLength } = props;
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const drag = useRef<{
    key: number;
    gesture: string;
    value: number;
    fromY: number;
    scale: typeof y;
    across: typeof x;
  } | null>(null);
  const pace = rider.hitch?.pace;
  if (!pace || pace.mode !== 'keys') return null;
  const metres = pace.unit === 'laps' ? pathLength : 1;
  const along = rider.hitch?.offset.along ?? 0;
  const down = (event: PointerEvent<SVGCircleElement>, key: number) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    // The scales of the start are kept, so that the ground does not move under the drag.
    drag.current = {
      key,
      gesture: `drag key ${event.timeStamp}`,
      value: pace.keys[key].value,
      fromY: event.clientY,
      scale: y,
      across: x,
    };
  };
  const move = (event: PointerEvent<SVGCircleElement>) => {
    const start = drag.current;
    if (start === null || metres === 0) return;
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    const frame = Math.round(start.across.invert(event.clientX - (box?.left ?? 0)));
    const metresPerPixel = start.scale.invert(0) - start.scale.invert(1);
    const value = start.value + ((start.fromY - event.clientY) * metresPerPixel) / metres;
    edit('Move key', placeKey(rider.id, start.key, frame, rounded(value, pace.unit)), start.gesture);
  };
  const nudge = (event: KeyboardEvent, key: number) => {
    const across = { ArrowLeft: -1, ArrowRight: 1 }[event.key] ?? 0;
    const up = { ArrowUp: 1, ArrowDown: -1 }[event.key] ?? 0;
    if (across === 0 && up === 0) return;
    event.preventDefault();
    event.stopPropagation();
    const many = event.shiftKey ? 10 : 1;
    const { frame, value } = pace.keys[key];
    edit(
      'Move key',
      placeKey(rider.id, key, frame + across * many, rounded(value + up * many * STEP[pace.unit], pace.unit)),
    );
  };
  return (
    <g>
      {pace.keys.map((key, i) => (
        <Knob
          key={i}
          cx={x(key.frame)}
          cy={y(key.value * metres + along)}
          r={6}
          stroke={lineColor(rider.color)}
          tabIndex={0}
          role="button"
          aria-label={`Key at frame ${showNumber(key.frame, 2)}: ${showNumber(key.value, 3)} ${pace.unit}`}
          onPointerDown={(event) => down(event, i)}
          onPointerMove={move}
          onPointerUp={() => {
            drag.current = null;
          }}
          onKeyDown={(event) => nudge(event, i)}
          onFocus={() => desk.getState().set({ riderId: rider.id })}
        />
      ))}
    </g>
  );
}

/** To the centimetre, or a ten-thousandth of a lap. */
function rounded(value: number, unit: 'metres' | 'laps'): number {
  return unit === 'metres' ? Math.round(value * 100) / 100 : Math.round(value * 1e4) / 1e4;
}
