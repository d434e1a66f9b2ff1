import { toLocal, toWorld, setHandle, type ShotPath, type Vec3 } from '@fleet-rail/core';
import { changeMark, movedPoints, reshapePath } from '../../edits/path-edits';
import type { HandleEnd } from '../lines/curve-overlay';
import type { Grip } from '../lines/plumb-lines';
import { snapTo } from '../pointer/snapping';
import { insertAt } from '../../commands/at-place';
import { clickForOperation, selectedPath } from './pick-tools';
import type { ToolContext, StagePointer, StageTool } from './stage-tool';

/** Dragged object, with the document as it was at the press. */
type Held =
  | {
      readonly kind: 'points';
      readonly path: ShotPath;
      readonly grip: Grip;
      readonly index: number;
      readonly adding: boolean;
      readonly chosen: ReadonlySet<number>;
      readonly from: Vec3;
      readonly grabbed: Vec3;
    }
  | { readonly kind: 'handle'; readonly path: ShotPath; readonly handle: HandleEnd; readonly grabbed: Vec3 }
  | { readonly kind: 'mark'; readonly path: ShotPath; readonly mark: string }
  | { readonly kind: 'box'; readonly x: number; readonly y: number; readonly before: ReadonlySet<number> };

/** First radius of a soft move, metres along the path, and its factor at each step of the wheel. */
const [LEAST_RADIUS, WHEEL_STEP] = [0.5, 1.5];

/** Chooses, and moves what is chosen: points, handles, marks; with Shift, or as `boxing`, a box of points. */
export function selectTool(context: ToolContext, boxing: boolean): StageTool {
  const { stage, desk, onBox } = context;
  let held: Held | null = null;
  let gesture = '';
  let last: StagePointer | null = null;
  const edgeOn = () => stage.views.current === 'side' || stage.views.current === 'front';
  /** Position of the pointer during a drag: on the object's level, or upright if seen from the side. */
  const grabbedAt = (x: number, y: number, through: Vec3, upright: boolean): Vec3 | null =>
    upright || edgeOn()
      ? stage.projection.onUpright(x, y, through)
      : stage.projection.onLevel(x, y, through[1]);

  const takeHold = (at: StagePointer): Held | null => {
    const { points, operation } = desk.getState();
    const path = selectedPath(desk);
    const box = (): Held => ({
      kind: 'box',
      x: at.x,
      y: at.y,
      before: at.shift && !boxing ? points : new Set(),
    });
    if (boxing) return box();
    if (path === null || operation !== null) return null;
    const handle = stage.picks.handle(at.x, at.y);
    if (handle) {
      const grabbed = grabbedAt(at.x, at.y, handle.position, false);
      return grabbed && { kind: 'handle', path, handle, grabbed };
    }
    const hit = stage.picks.grip(at.x, at.y);
    if (hit) {
      const from = toWorld(path.transform, path.points[hit.index].position);
      const level: Vec3 = hit.grip === 'foot' ? [from[0], 0, from[2]] : from;
      const grabbed = grabbedAt(at.x, at.y, level, hit.grip === 'head');
      const chosen = choosing(points, hit.index, at.shift);
      desk.getState().set({ points: chosen });
      return grabbed && { kind: 'points', path, ...hit, adding: at.shift, chosen, from, grabbed };
    }
    const mark = stage.picks.mark(at.x, at.y);
    if (mark !== null) return { kind: 'mark', path, mark };
    return at.shift ? box() : null;
  };

  const dragPoints = (now: Extract<Held, { kind: 'points' }>, at: StagePointer) => {
    const level: Vec3 = now.grip === 'foot' ? [now.from[0], 0, now.from[2]] : now.from;
    const place = grabbedAt(at.x, at.y, level, now.grip === 'head');
    if (place === null) return;
    const { grid, softRadius } = desk.getState().drawing;
    const target = now.from.map((value, k) => {
      const free = now.grip === 'head' ? k === 1 : edgeOn() && now.grip === 'point' ? true : k !== 1;
      return free ? snapTo(value + place[k] - now.grabbed[k], grid) : value;
    });
    // Seen from the side the third coordinate stays exactly unchanged.
    const step = target.map((value, k) =>
      Math.abs(place[k] - now.grabbed[k]) < 1e-9 ? 0 : value - now.from[k],
    ) as Vec3;
    edit('Move points', now.path, movedPoints(now.path, now.chosen, step, softRadius));
  };

  const dragHandle = ({ path, handle, grabbed }: Extract<Held, { kind: 'handle' }>, at: StagePointer) => {
    const now = grabbedAt(at.x, at.y, handle.position, false);
    if (now === null) return;
    const end = handle.position.map((value, k) => value + now[k] - grabbed[k]) as Vec3;
    const { position } = path.points[handle.index];
    const local = toLocal(path.transform, end).map((value, k) =>
      Number((value - position[k]).toFixed(6)),
    ) as Vec3;
    edit('Move handle', path, setHandle(path, handle.index, handle.side, local));
  };

  const edit = (label: string, before: ShotPath, after: ShotPath) =>
    desk.getState().edit(
      label,
      reshapePath(before.id, () => after),
      gesture,
    );

  return {
    press(at) {
      held = takeHold(at);
      last = null;
      gesture = `drag ${at.time}`;
      return held !== null;
    },
    wheel(steps) {
      if (held?.kind !== 'points') return;
      const { drawing, set } = desk.getState();
      const least = Math.max(LEAST_RADIUS, drawing.softRadius);
      // Turned back below the least it is off again.
      const radius = drawing.softRadius === 0 && steps < 0 ? 0 : least * WHEEL_STEP ** steps;
      const softRadius = radius < LEAST_RADIUS ? 0 : Number(radius.toPrecision(3));
      set({ drawing: { ...drawing, softRadius } });
      if (last) dragPoints(held, last);
    },
    drag(at) {
      if (held === null) return;
      last = at;
      if (held.kind === 'points') dragPoints(held, at);
      else if (held.kind === 'handle') dragHandle(held, at);
      else if (held.kind === 'mark') {
        const place = stage.picks.placeOnPath(held.path, at.x, at.y, true);
        if (place === null) return;
        const distance = Number(place.distance.toFixed(3));
        desk.getState().edit('Move mark', changeMark(held.path.id, held.mark, { distance }), gesture);
      } else {
        onBox({ x0: held.x, y0: held.y, x1: at.x, y1: at.y });
        const inside = stage.picks.pointsIn(held.x, held.y, at.x, at.y);
        desk.getState().set({ points: new Set([...held.before, ...inside]) });
      }
    },
    drop(_, dragged) {
      // A click on one of several chosen points chooses it alone.
      if (held?.kind === 'points' && !dragged && !held.adding)
        desk.getState().set({ points: new Set([held.index]) });
      if (held?.kind === 'box') {
        onBox(null);
        if (boxing) desk.getState().set({ tool: { kind: 'select' } });
      }
      held = null;
    },
    hover({ x, y }) {
      stage.hoverPath(null);
      return (
        stage.picks.handle(x, y) !== null ||
        stage.picks.grip(x, y) !== null ||
        stage.picks.mark(x, y) !== null
      );
    },
    click(at) {
      if (clickForOperation(context, at)) return;
      const { set, shot, operation } = desk.getState();
      if (operation !== null) return;
      const riderId = stage.figures.pick(stage.projection.rayAt(at.x, at.y));
      const pathId = stage.picks.path(at.x, at.y);
      if (riderId !== null) {
        const ridden = shot.riders.find((rider) => rider.id === riderId)?.attachment?.path;
        set(ridden === undefined ? { riderId } : { riderId, pathId: ridden, points: new Set() });
      } else if (pathId !== null) set({ pathId, points: new Set() });
      else set({ points: new Set() });
    },
    doubleClick(at) {
      const path = selectedPath(desk);
      const place =
        path && stage.picks.grip(at.x, at.y) === null ? stage.picks.placeOnPath(path, at.x, at.y) : null;
      if (path && place && desk.getState().operation === null) insertAt(desk, path, place.distance);
    },
    leave: () => stage.hoverPath(null),
  };
}

/** Selected points after one was pressed: with Shift it is added, or removed if it was selected. */
function choosing(before: ReadonlySet<number>, index: number, adding: boolean): ReadonlySet<number> {
  if (!adding) return before.has(index) ? before : new Set([index]);
  const after = new Set(before);
  if (!after.delete(index)) after.add(index);
  return after;
}
