import { useRef, type KeyboardEvent } from 'react';
import styled from 'styled-components';
import { changeDressing } from '../../edits/dressing-edits';
import { showNumber } from '../../ui/quantity';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { chosenDressing } from '../../state/selection';
import { laidEnds } from './stage-labels';
import { dragEnd } from '../../ui/drag-end';

const Grip = styled.span`
  position: absolute;
  left: 0;
  top: 0;
  padding: 1px 6px;
  border: 1.5px solid ${({ theme }) => theme.ink};
  border-radius: 4px;
  background: ${({ theme }) => theme.panel};
  font: 600 11px/16px ${LABEL_FONT};
  white-space: nowrap;
  cursor: ew-resize;
  touch-action: none;
  will-change: transform;
`;

/** A step with an arrow key, metres. */
const STEP = 0.5;
/** Nearer to an open path's end than this it is the end. */
const SNAP = 0.3;

/** An end of a dressing on its path: dragged along it, or moved with the arrow keys. */
export function DressingEnd({ end, x, y }: { end: 'from' | 'to'; x: number; y: number }) {
  const desk = useDeskStore();
  const name = useDesk((state) => chosenDressing(state)?.name ?? '');
  const now = useDesk((state) => laidEnds(state)?.[end] ?? 0);
  const gesture = useRef<string | null>(null);
  const put = (wanted: number, by: string) => {
    const ends = laidEnds(desk.getState());
    if (ends === null) return;
    const { laid, curve, from, to } = ends;
    const { length, closed } = curve;
    let s = Math.round(wanted * 100) / 100;
    if (!closed) s = s < SNAP ? 0 : s > length - SNAP ? length : s;
    // Round a closed path the end lies beyond the beginning, less than a lap.
    if (closed && end === 'to') while (s <= from) s += length;
    if (!closed && (end === 'from' ? s >= to : s <= from)) return;
    const part =
      end === 'from'
        ? { from: s, ...(closed && { to: endOf(s, to, length) }) }
        : { to: closed || s < length ? s : null };
    desk.getState().edit(
      `Drag an end of ${laid.name}`,
      changeDressing(laid.id, (one) => ({ ...one, ...part })),
      by,
    );
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -STEP, ArrowDown: -STEP, ArrowRight: STEP, ArrowUp: STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    put(now + by * (event.shiftKey ? 10 : 1), `laid ${name} ${end}`);
  };
  return (
    <Grip
      role="slider"
      tabIndex={0}
      aria-label={`${name} ${end === 'from' ? 'begins' : 'ends'}`}
      aria-valuenow={now}
      aria-valuetext={`${showNumber(now, 2)} m`}
      style={{ transform: `translate(${x}px, ${y}px) translate(-50%, 10px)` }}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        gesture.current = crypto.randomUUID();
      }}
      onPointerMove={(event) => {
        const { alongPath, pathId } = desk.getState();
        if (gesture.current === null || pathId === null) return;
        const s = alongPath?.(pathId, event.clientX, event.clientY - 18) ?? null;
        if (s !== null) put(s, gesture.current);
      }}
      {...dragEnd(() => {
        gesture.current = null;
      })}
    >
      {showNumber(now, 1)} m
    </Grip>
  );
}

/** End of a stretch of a closed path that begins elsewhere now: its former end, less than a lap on. */
function endOf(from: number, to: number, length: number): number {
  return to - length * Math.ceil((to - from) / length - 1);
}
