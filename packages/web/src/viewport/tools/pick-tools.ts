import type { AimTarget, ShotPath, Vec3 } from '@fleet-rail/core';
import { floorHeight, groundHeightOf } from '../../workers/scene-assets/ground-height';
import { aimAt } from '../../edits/rider-edits';
import { showNumber } from '../../ui/quantity';
import { attempt, attemptAsked } from '../../commands/attempt';
import type { DeskStore, EdgePick } from '../../state/desk-store';
import { beginAttaching, changeAttachPlan } from '../../commands/attach-previews';
import { coordinates } from '../labels/coordinates';
import { snapTo } from '../pointer/snapping';
import type { ToolContext, StagePointer, StageTool } from './stage-tool';

/** Picks a path for riders to land on. */
export function pickPathTool({ stage, desk }: ToolContext): StageTool {
  return {
    hover({ x, y }) {
      const path = stage.picks.path(x, y);
      stage.hoverPath(path);
      return path !== null;
    },
    click({ x, y }) {
      const { tool } = desk.getState();
      const path = stage.picks.path(x, y);
      stage.hoverPath(null);
      if (path !== null && tool.kind === 'pickPath') beginAttaching(desk, tool.riders, path);
    },
    leave: () => stage.hoverPath(null),
  };
}

/** Sets where the riders being attached start. */
export function startAt(desk: DeskStore, _: ShotPath, s: number): void {
  changeAttachPlan(desk, { start: Number(s.toFixed(3)) });
}

/** Picks what a rider aims at: a rider or a part of it, else the ground. */
export function pickTargetTool({ stage, desk, onHover }: ToolContext): StageTool {
  const under = ({ x, y }: StagePointer): { target: AimTarget; name: string } | null => {
    const { tool, shot } = desk.getState();
    const part = stage.figures.pickPart(stage.projection.rayAt(x, y));
    const rider = shot.riders.find(({ id }) => id === part?.rider);
    if (part && rider && (tool.kind !== 'pickTarget' || rider.id !== tool.riderId)) {
      const { node, at } = part;
      const target = node === null ? { rider: rider.id } : { rider: rider.id, node, at };
      return { target, name: `${rider.badge} ${rider.name}${node === null ? '' : `, ${node}`}` };
    }
    const place =
      stage.figures.onGround(stage.projection.rayAt(x, y)) ??
      stage.projection.onLevel(x, y, floorHeight(desk.getState().ground));
    const point = place?.map((value) => Number(value.toFixed(3))) as Vec3 | undefined;
    return point ? { target: { point }, name: point.map((value) => showNumber(value, 1)).join(', ') } : null;
  };
  return {
    hover(at) {
      const found = under(at);
      onHover(found && `Aim at ${found.name}`);
      return found !== null;
    },
    click(at) {
      const { tool, set } = desk.getState();
      const found = under(at);
      if (tool.kind !== 'pickTarget' || found === null) return;
      set({ tool: { kind: 'select' } });
      onHover(null);
      attempt(desk, 'Aim', aimAt(tool.riderId, found.target));
    },
    leave: () => onHover(null),
  };
}

/** Positions a rider where the ground, or something on it, is clicked. */
export function putRiderTool({ stage, desk, onHover }: ToolContext): StageTool {
  const under = ({ x, y }: StagePointer): Vec3 | null => {
    const ray = stage.projection.rayAt(x, y);
    const place =
      stage.figures.onGround(ray) ?? stage.projection.onLevel(x, y, floorHeight(desk.getState().ground));
    if (place === null) return null;
    const { grid } = desk.getState().drawing;
    const { ground } = desk.getState();
    const [px, pz] = [snapTo(place[0], grid), snapTo(place[2], grid)];
    return [px, groundHeightOf(ground)(px, pz, place[1]) ?? snapTo(place[1], 0), pz];
  };
  return {
    hover(at) {
      const place = under(at);
      onHover(place && coordinates(place, stage.views.current));
      return place !== null;
    },
    click(at) {
      const { tool, set, frame } = desk.getState();
      const place = under(at);
      if (tool.kind !== 'putRider' || place === null) return;
      set({ tool: { kind: 'select' } });
      onHover(null);
      void attemptAsked(desk, 'Position by click', 'putAt', tool.riderId, frame, place);
    },
    leave: () => onHover(null),
  };
}

/** Puts a point or a mark where the selected path is clicked; ends by itself after the click. */
export function placeOnPathTool(
  context: ToolContext,
  put: (desk: DeskStore, path: ShotPath, s: number) => void,
): StageTool {
  const { stage, desk, onHover } = context;
  const under = ({ x, y }: StagePointer) => {
    const path = selectedPath(desk);
    const place = path && stage.picks.placeOnPath(path, x, y);
    return path && place ? { path, s: place.distance } : null;
  };
  return {
    hover(at) {
      const found = under(at);
      onHover(found && `${showNumber(found.s, 2)} m along ${found.path.name}`);
      return found !== null;
    },
    click(at) {
      const found = under(at);
      if (found === null) return;
      desk.getState().set({ tool: { kind: 'select' } });
      onHover(null);
      put(desk, found.path, found.s);
    },
    leave: () => onHover(null),
  };
}

export function selectedPath(desk: DeskStore): ShotPath | null {
  const { shot, pathId } = desk.getState();
  return shot.paths.find((path) => path.id === pathId) ?? null;
}

/** Sets a place or partner of the operation that is being set up by a click; false where it takes none. */
export function clickForOperation({ stage, desk }: ToolContext, { x, y }: StagePointer): boolean {
  const { operation, set } = desk.getState();
  const path = selectedPath(desk);
  if (operation === null || path === null) return false;
  if (operation.kind === 'split' || operation.kind === 'open') {
    const place = stage.picks.placeOnPath(path, x, y);
    if (place) set({ operation: { ...operation, at: Number(place.distance.toFixed(3)) } });
  } else if (operation.kind === 'first') {
    const grip = stage.picks.grip(x, y);
    if (grip) set({ operation: { ...operation, index: grip.index } });
  } else if (operation.kind === 'join') {
    const other = stage.picks.path(x, y);
    if (other !== null && other !== operation.path) set({ operation: { ...operation, other } });
  } else return false;
  return true;
}

/** Picks model edges: one to use as it is, two for the line midway between. */
export function edgesTool({ stage, desk, onHover }: ToolContext): StageTool {
  return {
    hover({ x, y }) {
      const run = stage.figures.pickEdges(stage.projection.rayAt(x, y));
      onHover(run && edgesText(run));
      return run !== null;
    },
    click({ x, y }) {
      const { tool, set } = desk.getState();
      const run = stage.figures.pickEdges(stage.projection.rayAt(x, y));
      if (tool.kind !== 'edges' || run === null) return;
      set({ tool: { kind: 'edges', runs: [...tool.runs.slice(-1), run] } });
    },
    leave: () => onHover(null),
  };
}

function edgesText({ places, closed }: EdgePick): string {
  const count = closed ? places.length : places.length - 1;
  return `${count} ${count === 1 ? 'edge' : 'edges'}${closed ? ', all the way round' : ''}`;
}
