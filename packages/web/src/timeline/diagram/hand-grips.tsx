import { handTrackOf, withRider, type TransformKeys, type Rider } from '@fleet-rail/core';
import type { ScaleLinear } from 'd3-scale';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { lineColor } from '../../ui/theme/theme';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { Knob } from './knob';
import { useShownFrames } from './use-shown-frames';
import { dragEnd } from '../../ui/drag-end';

/** The keys of what is moved by hand, on its line of metres travelled: dragged sideways they come sooner or later. */
export function HandGrips(props: {
  rider: Rider;
  keyed: TransformKeys;
  x: ScaleLinear<number, number>;
  y: ScaleLinear<number, number>;
}) {
  const { rider, keyed, x, y } = props;
  const desk = useDeskStore();
  const shot = useDesk((state) => state.shot);
  const shown = useShownFrames(shot, rider);
  const held = useRef<{ i: number; from: number; keys: TransformKeys['keys']; gesture: string } | null>(null);
  const { pace } = handTrackOf(keyed, shot.fps);
  /** A key between its neighbours; with Shift all that follow come along. */
  const moved = (keys: TransformKeys['keys'], i: number, to: number, all: boolean): TransformKeys['keys'] => {
    const low = i > 0 ? keys[i - 1].frame + 1 : -Infinity;
    const high = !all && i < keys.length - 1 ? keys[i + 1].frame - 1 : Infinity;
    const frame = Math.min(high, Math.max(low, Math.round(to)));
    const by = frame - keys[i].frame;
    return keys.map((key, n) => (n === i || (all && n > i) ? { ...key, frame: key.frame + by } : key));
  };
  const put = (keys: TransformKeys['keys'], gesture?: string) =>
    desk
      .getState()
      .edit(
        'Move key',
        (now) => withRider(now, rider.id, (one) => ({ ...one, transformKeys: { keys } })),
        gesture,
      );
  const onKeyDown = (event: KeyboardEvent, i: number) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    put(moved(keyed.keys, i, keyed.keys[i].frame + by, event.shiftKey));
  };
  const onPointerDown = (event: PointerEvent<SVGElement>, i: number) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { i, from: event.clientX, keys: keyed.keys, gesture: `hand key ${event.timeStamp}` };
    const at = shown.shown(keyed.keys[i].frame);
    if (at !== null) desk.getState().goToFrame(Math.round(at));
  };
  const onPointerMove = (event: PointerEvent<SVGElement>) => {
    if (held.current === null) return;
    const { i, from, keys, gesture } = held.current;
    const frames = x.invert(event.clientX) - x.invert(from);
    put(moved(keys, i, keys[i].frame + frames, event.shiftKey), gesture);
  };
  return keyed.keys.map(({ frame }, i) => {
    const at = shown.shown(frame);
    if (at === null) return null;
    return (
      <Knob
        key={i}
        cx={x(at)}
        cy={y(pace.distance(frame))}
        r={6}
        stroke={lineColor(rider.color)}
        role="slider"
        tabIndex={0}
        aria-label={`Key ${i + 1} of ${rider.badge}`}
        aria-valuenow={frame}
        aria-valuetext={`frame ${frame}`}
        onKeyDown={(event) => onKeyDown(event, i)}
        onPointerDown={(event) => onPointerDown(event, i)}
        onPointerMove={onPointerMove}
        {...dragEnd(() => {
          held.current = null;
        })}
      />
    );
  });
}
