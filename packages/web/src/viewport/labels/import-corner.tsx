import { useRef, type KeyboardEvent } from 'react';
import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { showNumber } from '../../ui/quantity';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { draggedTo, farCorner } from '../../state/importing';
import { dragEnd } from '../../ui/drag-end';

const Grip = styled.span`
  position: absolute;
  left: 0;
  top: 0;
  padding: 1px 6px;
  border: 1.5px solid ${({ theme }) => theme.signal};
  border-radius: 4px;
  background: ${({ theme }) => theme.panel};
  font: 600 11px/16px ${LABEL_FONT};
  white-space: nowrap;
  cursor: nwse-resize;
  touch-action: none;
  will-change: transform;
`;

/** By how much an arrow key makes it larger. */
const STEP = 1.05;

/** The far corner of what is about to be imported: dragged over the ground, or grown with the arrow keys. */
export function ImportCorner({ x, y }: { x: number; y: number }) {
  const desk = useDeskStore();
  const importing = useDesk((state) => state.importing);
  const held = useRef(false);
  const corner = importing && farCorner(importing);
  if (!importing || !corner) return null;
  const size = Math.hypot(...corner);
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowLeft: 1 / STEP, ArrowDown: 1 / STEP, ArrowRight: STEP, ArrowUp: STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    desk
      .getState()
      .set({ importing: { ...importing, times: importing.times * by ** (event.shiftKey ? 10 : 1) } });
  };
  return (
    <Grip
      role="slider"
      tabIndex={0}
      aria-label="Size of what is imported"
      aria-valuenow={size}
      aria-valuetext={`${showNumber(size, 2)} m from the middle`}
      style={{ transform: `translate(${x}px, ${y}px) translate(-50%, -50%)` }}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = true;
      }}
      onPointerMove={(event) => {
        const { onLevel, importing: now, set } = desk.getState();
        const place = held.current ? onLevel?.(event.clientX, event.clientY) : null;
        if (place && now) set({ importing: draggedTo(now, place) });
      }}
      {...dragEnd(() => {
        held.current = false;
      })}
    >
      {corner.map((value) => showNumber(Math.abs(value), 1)).join(' × ')} m
    </Grip>
  );
}
