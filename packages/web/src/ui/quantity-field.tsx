import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { FieldBox, FieldInput, FieldLabel, FieldMessage } from './fields';
import { SHOWN_UNIT, readQuantity, showNumber, type QuantityKind } from './quantity';
import { dragEnd } from './drag-end';

export interface QuantityFieldProps {
  label: string;
  kind: QuantityKind;
  value: number;
  /** Called with every new value; `gesture` is one and the same for all values of one drag. */
  onChange: (value: number, gesture?: string) => void;
  /** For several items with different values: what is typed is evaluated for each from its own value. */
  onTyped?: (of: (now: number) => number) => void;
  /** Several items have different values: the shown one is no answer. */
  isMixed?: boolean;
  /** Change by one arrow press, or by four pixels of a sideways drag. */
  step?: number;
  min?: number;
  max?: number;
  whole?: boolean;
  digits?: number;
  fps?: number;
  /** Overrides the kind's unit. */
  unit?: string;
  isDisabled?: boolean;
}

const DragLabel = styled(FieldLabel)`
  cursor: ew-resize;
  touch-action: none;
  user-select: none;
`;

const PIXELS_PER_STEP = 4;

/**
 * A number with its unit. Typed with any unit of its kind, stepped by the arrow keys (Shift: ten),
 * or dragged sideways by its label. What cannot be read stays as typed, with a message.
 */
export function QuantityField(props: QuantityFieldProps) {
  const { label, kind, value, onChange, step = 1, min = -1e9, max = 1e9, whole, digits = 3 } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const drag = useRef<{ x: number; from: number; gesture: string; moved: boolean } | null>(null);
  const unit = props.unit ?? SHOWN_UNIT[kind];
  const shown = props.isMixed
    ? 'several'
    : showNumber(value, digits) + (unit && `${unit === '°' ? '' : ' '}${unit}`);
  const fit = (next: number) =>
    Math.min(max, Math.max(min, whole ? Math.round(next) : Number(next.toPrecision(12))));

  const commit = () => {
    if (typed === null) return;
    const read = readQuantity(typed, kind, props.fps, value);
    if (typeof read === 'string') return setProblem(read);
    if (read < min - 1e-9 || read > max + 1e-9) {
      const [least, most] = [showNumber(min, 6), showNumber(max, 6)];
      const spaced = unit && ` ${unit}`;
      return setProblem(
        props.max === undefined
          ? `Enter ${least}${spaced} or more.`
          : props.min === undefined
            ? `Enter ${most}${spaced} or less.`
            : `Enter ${least} to ${most}${spaced}.`,
      );
    }
    setTyped(null);
    setProblem(null);
    if (props.onTyped) {
      const of = (now: number) => {
        const own = readQuantity(typed, kind, props.fps, now);
        return typeof own === 'number' ? fit(own) : now;
      };
      props.onTyped(of);
    } else if (fit(read) !== value) onChange(fit(read));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const way = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (way !== 0) {
      event.preventDefault();
      setTyped(null);
      setProblem(null);
      onChange(fit(value + way * step * (event.shiftKey ? 10 : 1)));
    } else if (event.key === 'Enter' && typed !== null) {
      // Enter acts outside of the field only if there is nothing to commit.
      event.stopPropagation();
      commit();
    } else if (event.key === 'Escape' && typed !== null) {
      event.stopPropagation();
      setTyped(null);
      setProblem(null);
    }
  };
  const onPointerDown = (event: PointerEvent<HTMLLabelElement>) => {
    if (props.isDisabled) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = {
      x: event.clientX,
      from: value,
      gesture: `drag ${label} ${event.timeStamp}`,
      moved: false,
    };
  };
  const onPointerMove = (event: PointerEvent) => {
    const start = drag.current;
    if (start === null) return;
    const steps = Math.trunc((event.clientX - start.x) / PIXELS_PER_STEP);
    // Less than a step is a hand that trembles on a press.
    if (steps === 0 && !start.moved) return;
    start.moved = true;
    onChange(fit(start.from + steps * step), start.gesture);
  };
  const endDrag = () => {
    drag.current = null;
  };
  return (
    <FieldBox
      value={typed ?? shown}
      onChange={setTyped}
      onBlur={commit}
      isInvalid={problem !== null}
      isDisabled={props.isDisabled}
    >
      <DragLabel onPointerDown={onPointerDown} onPointerMove={onPointerMove} {...dragEnd(endDrag)}>
        {label}
      </DragLabel>
      <FieldInput onKeyDown={onKeyDown} inputMode="decimal" />
      <FieldMessage>{problem}</FieldMessage>
    </FieldBox>
  );
}
