import { toLocal, toWorld, type Vec3 } from '@fleet-rail/core';
import { useEffect, type RefObject } from 'react';
import { placePathPoint } from '../../edits/path-edits';
import type { DeskStore } from '../desk-store';
import { finishDrawing } from '../path/drawing';
import type { Grip } from './plumb-lines';
import type { StageView } from './stage-view';

/** Drawing and dragging go in steps of ten centimetres. */
const SNAP = 0.1;
const CLICK_PIXELS = 4;
const CLOSE_PIXELS = 12;

interface Drag {
  readonly index: number;
  readonly grip: Grip;
  readonly from: Vec3;
  readonly grabbed: Vec3;
  readonly gesture: string;
}

const snap = (value: number) => Math.round(value / SNAP) / Math.round(1 / SNAP);

/** What the pointer does on the stage: draw, pick a path or rider, take hold of a point. */
export function useStagePointer(
  canvas: RefObject<HTMLCanvasElement | null>,
  view: RefObject<StageView | null>,
  desk: DeskStore,
  onPickedPath: (pathId: string) => void,
  onHover: (place: Vec3 | null) => void,
): void {
  useEffect(() => {
    const element = canvas.current;
    const stage = view.current;
    if (!element || !stage) return;
    let pressed: { x: number; y: number } | null = null;
    let drag: Drag | null = null;
    const local = (event: PointerEvent) => {
      const box = element.getBoundingClientRect();
      return { x: event.clientX - box.left, y: event.clientY - box.top };
    };
    const drawPlace = (x: number, y: number): Vec3 | null => {
      const hit = stage.onLevel(x, y, 0);
      return hit && [snap(hit[0]), 0, snap(hit[2])];
    };
    const down = (event: PointerEvent) => {
      if (event.button !== 0) return;
      const at = local(event);
      pressed = at;
      const { tool, shot, pathId } = desk.getState();
      const path = shot.paths.find((other) => other.id === pathId);
      const hit = tool.kind === 'select' && path ? stage.pickGrip(at.x, at.y) : null;
      if (!hit || !path) return;
      stage.views.setMovable(false);
      element.setPointerCapture(event.pointerId);
      const from = toWorld(path.transform, path.points[hit.index].position);
      const grabbed = grabPlace(stage, hit.grip, at.x, at.y, from);
      if (grabbed === null) return;
      drag = { ...hit, from, grabbed, gesture: `drag point ${event.timeStamp}` };
      desk.getState().set({ points: new Set([hit.index]) });
    };
    const move = (event: PointerEvent) => {
      const at = local(event);
      const { tool, shot, pathId } = desk.getState();
      if (drag !== null) {
        if (pressed && Math.hypot(at.x - pressed.x, at.y - pressed.y) < CLICK_PIXELS) return;
        pressed = null;
        const path = shot.paths.find((other) => other.id === pathId);
        const now = grabPlace(stage, drag.grip, at.x, at.y, drag.from);
        if (!path || now === null) return;
        const place = draggedPlace(stage, drag, now);
        desk
          .getState()
          .edit(
            'Move point',
            placePathPoint(path.id, drag.index, toLocal(path.transform, place)),
            drag.gesture,
          );
      } else if (tool.kind === 'draw') {
        const place = drawPlace(at.x, at.y);
        stage.hoverDraw(tool.places.length > 0 ? place : null);
        onHover(place);
      } else {
        const path = tool.kind === 'pickPath' ? stage.pickPath(at.x, at.y) : null;
        stage.hoverPath(path);
        const near = path ?? stage.pickGrip(at.x, at.y);
        element.style.cursor = near !== null ? 'pointer' : '';
      }
    };
    const up = (event: PointerEvent) => {
      const at = local(event);
      const isClick = pressed !== null && Math.hypot(at.x - pressed.x, at.y - pressed.y) < CLICK_PIXELS;
      const dragged = drag !== null;
      cancel();
      if (isClick && !dragged && event.button === 0) click(at.x, at.y);
    };
    const click = (x: number, y: number) => {
      const { tool, set } = desk.getState();
      if (tool.kind === 'draw') {
        if (tool.places.length > 2 && stage.isNear(tool.places[0], x, y, CLOSE_PIXELS)) {
          finishDrawing(desk, true);
          return;
        }
        const place = drawPlace(x, y);
        if (place) set({ tool: { kind: 'draw', places: [...tool.places, place] } });
        return;
      }
      const pathId = stage.pickPath(x, y);
      if (tool.kind === 'pickPath') {
        stage.hoverPath(null);
        if (pathId !== null) onPickedPath(pathId);
        return;
      }
      const riderId = stage.pickRider(x, y);
      if (riderId !== null) {
        const ridden = desk.getState().shot.riders.find((rider) => rider.id === riderId)?.hitch?.path;
        set(ridden === undefined ? { riderId } : { riderId, pathId: ridden, points: new Set() });
      } else if (pathId !== null) set({ pathId, points: new Set() });
      else set({ points: new Set() });
    };
    const cancel = () => {
      pressed = null;
      drag = null;
      stage.views.setMovable(true);
    };
    const leave = () => {
      stage.hoverDraw(null);
      stage.hoverPath(null);
      onHover(null);
    };
    element.addEventListener('pointerdown', down, { capture: true });
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerup', up);
    element.addEventListener('pointercancel', cancel);
    element.addEventListener('pointerleave', leave);
    return () => {
      element.removeEventListener('pointerdown', down, { capture: true });
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerup', up);
      element.removeEventListener('pointercancel', cancel);
      element.removeEventListener('pointerleave', leave);
    };
  }, [canvas, view, desk, onPickedPath, onHover]);
}

/** Where the pointer holds a grip: on the ground for a foot, at its own level for a point, upright for a head. */
function grabPlace(stage: StageView, grip: Grip, x: number, y: number, from: Vec3): Vec3 | null {
  const edgeOn = stage.views.current === 'side' || stage.views.current === 'front';
  if (grip === 'head' || edgeOn) return stage.onUpright(x, y, from);
  return stage.onLevel(x, y, grip === 'foot' ? 0 : from[1]);
}

/** Where a dragged point goes: a head only up and down, a foot only over the ground. */
function draggedPlace(stage: StageView, drag: Drag, now: Vec3): Vec3 {
  const step = now.map((value, k) => value - drag.grabbed[k]);
  const edgeOn = stage.views.current === 'side' || stage.views.current === 'front';
  const [x, y, z] = drag.from;
  const level: Vec3 = [snap(x + step[0]), y, snap(z + step[2])];
  if (drag.grip === 'head') return [x, snap(y + step[1]), z];
  if (edgeOn && drag.grip === 'point') return [level[0], snap(y + step[1]), level[2]];
  return level;
}
