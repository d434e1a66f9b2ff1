import { toWorld, type Vec3 } from '@fleet-rail/core';
import type { DrawPlace } from '../../edits/drawn-path';
import { floorHeight, groundHeightOf } from '../../workers/scene-assets/ground-height';
import { finishDrawing } from '../../commands/drawing';
import { coordinates } from '../labels/coordinates';
import { snapDirection, snapTo } from '../pointer/snapping';
import type { ToolContext, StagePointer, StageTool } from './stage-tool';

const CLOSE_PIXELS = 12;
const POINT_PIXELS = 10;

/** Clicks places into any view, with what they snap to. */
export function drawTool({ stage, desk, onHover }: ToolContext): StageTool {
  const placeUnder = (at: StagePointer): DrawPlace | null => {
    const { tool, drawing, shot, ground } = desk.getState();
    if (tool.kind !== 'draw') return null;
    const last = tool.places.at(-1)?.position ?? null;
    if (drawing.toPoints) {
      const places = shot.paths.flatMap((path) =>
        path.points.map((point) => toWorld(path.transform, point.position)),
      );
      const near = places.find((place) => stage.picks.isNear(place, at.x, at.y, POINT_PIXELS));
      if (near) return { position: near, straight: at.shift };
    }
    const free = freePlace(at, last, drawing.toGround);
    if (free === null) return null;
    const [plane, place] = free;
    const turned = at.shift && last ? snapDirection(last, place, plane, drawing.grid) : null;
    const position =
      turned ?? (place.map((value, k) => (plane[k] ? snapTo(value, drawing.grid) : value)) as Vec3);
    const [x, y, z] = position;
    // The grid may have moved the place to where the ground is of another height.
    if (drawing.toGround && plane[0] && plane[2])
      position[1] = (groundHeightOf(ground)(x, z, place[1]) ?? y) + drawing.above;
    return { position, straight: at.shift };
  };
  /** Position of the pointer in the plane of the view, and the coordinates of that plane. */
  const freePlace = (
    { x, y }: StagePointer,
    last: Vec3 | null,
    toGround: boolean,
  ): [readonly [boolean, boolean, boolean], Vec3] | null => {
    const view = stage.views.current;
    if (view === 'side' || view === 'front') {
      const place = stage.projection.onUpright(x, y, last ?? [0, 0, 0]);
      return place && [view === 'side' ? [false, true, true] : [true, true, false], place];
    }
    const level: readonly [boolean, boolean, boolean] = [true, false, true];
    const onGround = toGround ? stage.figures.onGround(stage.projection.rayAt(x, y)) : null;
    // A path begins on the floor and goes on at the height it has; seen from above every height is under the pointer alike.
    const height = last?.[1] ?? floorHeight(desk.getState().ground);
    const place = onGround ?? stage.projection.onLevel(x, y, height);
    if (place && !onGround) place[1] = height;
    return place && [level, place];
  };
  return {
    hover(at) {
      const { tool } = desk.getState();
      const place = placeUnder(at);
      const begun = tool.kind === 'draw' && tool.places.length > 0;
      stage.hoverDraw(begun ? place : null);
      onHover(place && coordinates(place.position, stage.views.current));
      return true;
    },
    click(at) {
      const { tool, set } = desk.getState();
      if (tool.kind !== 'draw') return;
      const [first] = tool.places;
      if (tool.places.length > 2 && stage.picks.isNear(first.position, at.x, at.y, CLOSE_PIXELS)) {
        finishDrawing(desk, true);
        return;
      }
      const place = placeUnder(at);
      if (place === null) return;
      const places = [...tool.places, place];
      set({ tool: { kind: 'draw', places } });
      if (desk.getState().drawing.kind === 'arc' && places.length === 3) finishDrawing(desk, false);
    },
    leave() {
      stage.hoverDraw(null);
      onHover(null);
    },
  };
}
