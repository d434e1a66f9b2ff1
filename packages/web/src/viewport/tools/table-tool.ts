import { NO_MOVE, moveRiders, toWorld, type RidersMove, type Vec3 } from '@fleet-rail/core';
import { groundHeightOf, sceneAssets } from '../../workers/scene-assets/ground-height';
import { showNumber } from '../../ui/quantity';
import { attempt } from '../../commands/attempt';
import { snapTo } from '../pointer/snapping';
import type { TableGrip } from '../lines/survey-table';
import { selectTool } from './select-tool';
import type { StagePointer, StageTool, ToolContext } from './stage-tool';

/** Dragged object, and its position at the press. */
interface Held {
  readonly grip: TableGrip;
  readonly ids: readonly string[];
  readonly from: Vec3;
  readonly grabbed: Vec3;
  readonly frame: number;
  readonly gesture: string;
}

const SNAP_PIXELS = 10;
/** Degrees and parts of the size that a turn and a sizing keep to, while there is a grid. */
const [TURN_STEP, SIZE_STEP] = [1, 0.05];

/** Moves, turns, lifts and sizes what rides no path by the table under it, and what is moved by hand by the stones of its trail. */
export function tableTool(context: ToolContext): StageTool {
  const { stage, desk, onHover } = context;
  const ordinary = selectTool(context, false);
  let held: Held | null = null;
  const edgeOn = () => stage.views.current === 'side' || stage.views.current === 'front';
  const placeAt = ({ x, y }: StagePointer, through: Vec3, upright: boolean): Vec3 | null =>
    upright || edgeOn()
      ? stage.projection.onUpright(x, y, through)
      : stage.projection.onLevel(x, y, through[1]);
  const gripAt = ({ x, y }: StagePointer): TableGrip | null => {
    const { place } = stage.table;
    if (place === null || !stage.table.object.visible) return null;
    const onTop = edgeOn() ? null : stage.projection.onLevel(x, y, place[1]);
    return stage.table.gripAt((at, pixels) => stage.picks.isNear(at, x, y, pixels), onTop);
  };
  const stoneAt = ({ x, y }: StagePointer) =>
    stage.milestones.object.visible
      ? (stage.projection.nearestOf(stage.milestones.stones, x, y, 10) ??
        stage.projection.nearestOf(stage.milestones.frames, x, y, 6))
      : null;
  const takeHold = (at: StagePointer): Held | null => {
    const { riderId, together, frame } = desk.getState();
    if (riderId === null) return null;
    const grip = gripAt(at);
    const stone = grip === 'head' || grip === 'peg' ? null : stoneAt(at);
    const from = stone?.position ?? stage.table.place;
    if (from === null || (grip === null && stone === null)) return null;
    if (stone) desk.getState().goToFrame(stone.frame);
    const grabbed = placeAt(at, from, grip === 'head');
    const others = together.has(riderId) && !stone ? [...together].filter((id) => id !== riderId) : [];
    return (
      grabbed && {
        grip: stone ? 'top' : (grip as TableGrip),
        ids: [riderId, ...others],
        from,
        grabbed,
        frame: stone?.frame ?? frame,
        gesture: `table ${at.time}`,
      }
    );
  };

  /** Positions of other things, and points of paths. */
  const snapPlaces = (ids: readonly string[]): Vec3[] => {
    const { shot } = desk.getState();
    const points = shot.paths.flatMap((path) =>
      path.points.map((point) => toWorld(path.transform, point.position)),
    );
    return [...stage.figures.placesBut(ids), ...points];
  };

  const moveTo = (now: Held, at: StagePointer): RidersMove | null => {
    const place = placeAt(at, now.from, now.grip === 'head');
    if (place === null) return null;
    const { drawing, ground } = desk.getState();
    const { from, grabbed } = now;
    const about = (p: Vec3) => Math.atan2(p[0] - from[0], p[2] - from[2]);
    if (now.grip === 'rim') {
      const turn = ((about(place) - about(grabbed)) * 180) / Math.PI;
      const wrapped = turn - 360 * Math.round(turn / 360);
      return { ...NO_MOVE, turn: snapTo(wrapped, drawing.grid > 0 ? TURN_STEP : 0) };
    }
    if (now.grip === 'peg') {
      const far = (p: Vec3) => Math.hypot(p[0] - from[0], p[1] - from[1], p[2] - from[2]);
      const size = far(place) / Math.max(1e-9, far(grabbed));
      return { ...NO_MOVE, size: Math.max(SIZE_STEP, snapTo(size, drawing.grid > 0 ? SIZE_STEP : 0)) };
    }
    if (now.grip === 'head')
      return { ...NO_MOVE, step: [0, snapTo(from[1] + place[1] - grabbed[1], drawing.grid) - from[1], 0] };
    const near = drawing.toPoints
      ? snapPlaces(now.ids).find((one) => stage.picks.isNear(one, at.x, at.y, SNAP_PIXELS))
      : undefined;
    const target =
      near ??
      (from.map((value, k) => {
        const step = place[k] - grabbed[k];
        return Math.abs(step) < 1e-9 ? value : snapTo(value + step, drawing.grid);
      }) as Vec3);
    if (drawing.toGround && !near) {
      const height = groundHeightOf(ground)(target[0], target[2], target[1]);
      if (height !== null) target[1] = height + drawing.above;
    }
    return { ...NO_MOVE, step: target.map((value, k) => value - from[k]) as Vec3 };
  };

  const hint = (grip: TableGrip, { step, turn, size }: RidersMove): string =>
    grip === 'rim'
      ? `Turned by ${showNumber(turn, 0)}°`
      : grip === 'peg'
        ? `${showNumber(size, 2)} × the size`
        : grip === 'head'
          ? `Lifted by ${showNumber(step[1], 2)} m`
          : `Moved by ${showNumber(step[0], 2)}, ${showNumber(step[2], 2)} m`;

  return {
    ...ordinary,
    press(at) {
      held = takeHold(at);
      return held !== null || (ordinary.press?.(at) ?? false);
    },
    drag(at) {
      if (held === null) return ordinary.drag?.(at);
      const { ids, frame, gesture, grip } = held;
      const move = moveTo(held, at);
      if (move === null) return;
      onHover(hint(grip, move));
      attempt(
        desk,
        { top: 'Move', rim: 'Turn', head: 'Lift', peg: 'Size' }[grip],
        (shot, begun) => moveRiders(begun ?? shot, sceneAssets(desk.getState()), ids, frame, move),
        gesture,
      );
    },
    drop(at, dragged) {
      if (held === null) return ordinary.drop?.(at, dragged);
      held = null;
      onHover(null);
    },
    hover(at) {
      const grip = gripAt(at);
      const stone = grip === 'head' || grip === 'peg' ? null : stoneAt(at);
      onHover(stone ? `Frame ${stone.frame}: drag it` : grip && HINTS[grip]);
      return stone !== null || grip !== null || (ordinary.hover?.(at) ?? false);
    },
    leave() {
      onHover(null);
      ordinary.leave?.();
    },
  };
}

const HINTS: Readonly<Record<TableGrip, string>> = {
  top: 'Drag to move it',
  rim: 'Drag to turn it',
  head: 'Drag to lift it',
  peg: 'Drag to size it',
};
