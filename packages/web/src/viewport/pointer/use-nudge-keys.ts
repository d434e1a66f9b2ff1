import type { Vec3 } from '@fleet-rail/core';
import { useCallback, type KeyboardEvent } from 'react';
import { deletePathPoints, movePathPoints } from '../../edits/path-edits';
import type { DeskState, DeskStore } from '../../state/desk-store';

/** Steps of the arrow keys where no grid is set, metres. */
const STEP = 0.1;

/** As a drawing seen from above has it. */
const FROM_ABOVE: readonly [Vec3, Vec3] = [
  [1, 0, 0],
  [0, 0, -1],
];

/** By view what the arrow keys mean: right and up on the screen, or in plan where the view has no fixed ones. */
const RIGHT_UP: Record<DeskState['view'], readonly [Vec3, Vec3]> = {
  free: FROM_ABOVE,
  through: FROM_ABOVE,
  plan: FROM_ABOVE,
  side: [
    [0, 0, -1],
    [0, 1, 0],
  ],
  front: [
    [1, 0, 0],
    [0, 1, 0],
  ],
};

/** Keys that move the chosen points by the grid, or take them out: on the stage, and with Alt in their list. */
export function useNudgeKeys(desk: DeskStore, needsAlt = false): (event: KeyboardEvent) => void {
  return useCallback(
    (event) => {
      const { pathId, points, tool, operation, drawing, edit, set } = desk.getState();
      if (pathId === null || points.size === 0 || tool.kind !== 'select' || operation !== null) return;
      if (event.key === 'Delete') {
        edit('Delete points', deletePathPoints(pathId, points));
        set({ points: new Set() });
      } else {
        if (event.altKey !== needsAlt || event.ctrlKey || event.metaKey) return;
        const step = stepOf(event.key, desk.getState(), event.shiftKey ? 10 : 1);
        if (step === null) return;
        edit(
          'Move points',
          movePathPoints(pathId, points, step, drawing.softRadius),
          `nudge ${pathId} ${[...points].join(' ')}`,
        );
      }
      event.preventDefault();
      event.stopPropagation();
    },
    [desk, needsAlt],
  );
}

function stepOf(key: string, { view, drawing }: DeskState, times: number): Vec3 | null {
  const size = (drawing.grid || STEP) * times;
  const [right, up] = RIGHT_UP[view];
  const along = (direction: Vec3, sign: number): Vec3 =>
    direction.map((value) => value * sign * size || 0) as Vec3;
  switch (key) {
    case 'ArrowRight':
      return along(right, 1);
    case 'ArrowLeft':
      return along(right, -1);
    case 'ArrowUp':
      return along(up, 1);
    case 'ArrowDown':
      return along(up, -1);
    case 'PageUp':
      return along([0, 1, 0], 1);
    case 'PageDown':
      return along([0, 1, 0], -1);
    default:
      return null;
  }
}
