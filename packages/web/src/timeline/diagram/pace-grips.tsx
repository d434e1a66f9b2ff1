import { moveKey, moveKeys, shiftFrom, type Pace } from '@fleet-rail/core';
import { useRef, useState, type KeyboardEvent, type MouseEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { lineColor } from '../../ui/theme/theme';
import { showNumber } from '../../ui/quantity';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { brokenLine } from './broken-line';
import { Telling } from './diagram-text';
import { KeyBox } from './key-box';
import { Knob } from './knob';
import { KeyHandles } from './key-handles';
import type { KeyedLine } from './keyed-line';
import { svgPlace } from './svg-place';
import { dragEnd } from '../../ui/drag-end';

const Stretch = styled.path`
  fill: none;
  stroke: transparent;
  stroke-width: 11;
  cursor: ew-resize;
`;

type Held = { readonly kind: 'key'; readonly i: number } | { readonly kind: 'stretch'; readonly i: number };

/**
 * The keys of a line of the selected rider and the stretches between them. A key is dragged anywhere; a stretch is
 * dragged sideways, which makes it slower or faster, or a stop longer or shorter, with all that follows.
 */
export function KeyGrips({ line }: { line: KeyedLine }) {
  const { rider, pace, geometry, change } = line;
  const desk = useDeskStore();
  const chosen = useDesk((state) => state.keys);
  const set = useDesk((state) => state.set);
  const [reported, setTold] = useState<{ x: number; y: number; text: string } | null>(null);
  const drag = useRef<{
    held: Held;
    pace: Pace;
    chosen: ReadonlySet<number>;
    gesture: string;
    from: { x: number; y: number };
    /** The scales of the start are kept, so that the ground does not move under the drag. */
    geometry: KeyedLine['geometry'];
  } | null>(null);

  const begin = (event: PointerEvent<SVGElement>, held: Held) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    let keys = chosen;
    if (held.kind === 'key') {
      if (event.shiftKey) keys = toggled(chosen, held.i);
      else if (!chosen.has(held.i)) keys = new Set([held.i]);
      set({ keys });
    }
    drag.current = {
      held,
      pace,
      chosen: keys,
      gesture: `pace ${event.timeStamp}`,
      from: { x: event.clientX, y: event.clientY },
      geometry,
    };
  };
  const move = (event: PointerEvent<SVGElement>) => {
    const start = drag.current;
    if (start === null) return;
    const { px, py } = svgPlace(event);
    const frames = Math.round(
      start.geometry.frameAt(px) - start.geometry.frameAt(px - (event.clientX - start.from.x)),
    );
    const value = (start.from.y - event.clientY) * start.geometry.valuePerPixel;
    const { i } = start.held;
    if (start.held.kind === 'stretch') {
      const next = shiftFrom(start.pace, i + 1, frames);
      change('Drag a stretch', () => next, start.gesture);
      setTold({ x: px, y: py, text: line.toldStretch(next.keys[i], next.keys[i + 1]) });
      return;
    }
    const key = start.pace.keys[i];
    if (start.chosen.size > 1) {
      const rise = line.rounded(value);
      change('Move keys', () => moveKeys(start.pace, start.chosen, frames, rise), start.gesture);
      return;
    }
    const level = line.snapped(key.value + value, start.geometry);
    const next = moveKey(start.pace, i, Math.round(key.frame + frames), level);
    change('Move key', () => next, start.gesture);
    setTold({ x: px, y: py, text: `frame ${showNumber(next.keys[i].frame, 2)} · ${line.told(level)}` });
  };
  const end = () => {
    drag.current = null;
    setTold(null);
  };
  const nudge = (event: KeyboardEvent, i: number) => {
    const many = event.shiftKey ? 10 : 1;
    const frames = ({ ArrowLeft: -1, ArrowRight: 1 }[event.key] ?? 0) * many;
    const value = ({ ArrowUp: 1, ArrowDown: -1 }[event.key] ?? 0) * many * line.step;
    const keys = chosen.has(i) ? chosen : new Set([i]);
    if (event.key === 'Delete') {
      change('Delete keys', (before) => ({ ...before, keys: before.keys.filter((_, k) => !keys.has(k)) }));
      set({ keys: new Set() });
    } else if (frames !== 0 || value !== 0) {
      const { keys: own } = pace;
      const rise = line.rounded(own[i].value + value) - own[i].value;
      change('Move key', (before) => moveKeys(before, keys, frames, value === 0 ? 0 : rise));
    } else if (event.key === ' ') set({ keys: toggled(chosen, i) });
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const add = (event: MouseEvent<SVGElement>) => {
    event.stopPropagation();
    line.add(Math.round(geometry.frameAt(svgPlace(event).px)));
  };
  const lines = stretchLines(line);
  const stroke = lineColor(rider.color);
  return (
    <g>
      {lines.map((points, i) => (
        <Stretch
          key={i}
          d={brokenLine(points)}
          aria-hidden
          data-stretch={i}
          onPointerDown={(event) => begin(event, { kind: 'stretch', i })}
          onPointerMove={move}
          {...dragEnd(end)}
          onDoubleClick={add}
        />
      ))}
      <KeyBox line={line} />
      <KeyHandles line={line} />
      {pace.keys.map((key, i) => {
        const px = geometry.across(key.frame);
        if (px === null) return null;
        return (
          <Knob
            key={i}
            $chosen={chosen.has(i)}
            cx={px}
            cy={geometry.up(key.value)}
            r={6}
            stroke={stroke}
            tabIndex={0}
            role="button"
            aria-pressed={chosen.has(i)}
            aria-label={`Key at frame ${showNumber(key.frame, 2)}: ${showNumber(key.value, 3)} ${line.unit}`.trim()}
            onPointerDown={(event) => begin(event, { kind: 'key', i })}
            onPointerMove={move}
            {...dragEnd(end)}
            onDoubleClick={(event) => event.stopPropagation()}
            onKeyDown={(event) => nudge(event, i)}
            onFocus={() => desk.getState().set({ riderId: rider.id })}
          />
        );
      })}
      {reported && <Telling {...reported} />}
    </g>
  );
}

function toggled(chosen: ReadonlySet<number>, i: number): Set<number> {
  const next = new Set(chosen);
  if (!next.delete(i)) next.add(i);
  return next;
}

const SAMPLES = 16;

/** Each stretch between two keys as a line of pixels. */
function stretchLines({ pace, curve, geometry }: KeyedLine): [number, number][][] {
  if (curve === null) return [];
  return pace.keys.slice(1).map((next, i) => {
    const { frame, ease } = pace.keys[i];
    const points = ease === 'linear' ? 1 : SAMPLES;
    return Array.from({ length: points + 1 }, (_, k): [number, number] | null => {
      const at = frame + ((next.frame - frame) * k) / points;
      const px = geometry.across(at);
      // A held stretch stays level up to its step.
      const hair = k === points ? (next.frame - frame) * 1e-9 : 0;
      return px === null ? null : [px, geometry.up(curve(at - hair))];
    }).filter((point) => point !== null);
  });
}
