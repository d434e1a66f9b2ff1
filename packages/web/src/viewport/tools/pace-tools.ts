import { addStop, type Drive, type ShotPath } from '@fleet-rail/core';
import { changePace } from '../../edits/rider-edits';
import { showNumber } from '../../ui/quantity';
import type { DeskStore } from '../../state/desk-store';
import type { ToolContext, StageTool } from './stage-tool';

const changeDrive = (desk: DeskStore, label: string, change: (drive: Drive) => Drive, gesture?: string) => {
  const { riderId, edit } = desk.getState();
  if (riderId !== null) {
    edit(
      label,
      changePace(riderId, (pace) => ({ ...pace, drive: change(pace.drive) })),
      gesture,
    );
  }
};

/** Makes the selected rider stop at a place of its path. */
export function stopAt(desk: DeskStore, _: ShotPath, s: number): void {
  const distance = Number(s.toFixed(3));
  changeDrive(desk, 'Add a stop', (drive) => ({
    ...drive,
    stops: addStop(drive, { distance, seconds: 2 }),
  }));
}

/** Drags a slow stretch along the selected path; ends by itself after the drag. */
export function zoneTool({ stage, desk, onHover }: ToolContext): StageTool {
  let held: { path: ShotPath; from: number; gesture: string; index: number } | null = null;
  const under = (x: number, y: number, anywhere: boolean) => {
    const { shot, pathId } = desk.getState();
    const path = shot.paths.find(({ id }) => id === pathId);
    const place = path && stage.picks.placeOnPath(path, x, y, anywhere);
    return path && place ? { path, s: Number(place.distance.toFixed(2)) } : null;
  };
  return {
    press({ x, y, time }) {
      const found = under(x, y, false);
      const { shot, riderId } = desk.getState();
      const drive = shot.riders.find(({ id }) => id === riderId)?.attachment?.pace.drive;
      if (found === null || drive === undefined) return false;
      held = { path: found.path, from: found.s, gesture: `zone ${time}`, index: drive.zones.length };
      return true;
    },
    drag({ x, y }) {
      const found = held && under(x, y, true);
      if (!held || !found) return;
      const { from, index, gesture } = held;
      const [low, high] = [Math.min(from, found.s), Math.max(from, found.s)];
      changeDrive(
        desk,
        'Add a slow stretch',
        (drive) => {
          const zone = { from: low, to: high, speed: Number((drive.top / 2).toPrecision(3)) };
          return { ...drive, zones: [...drive.zones.slice(0, index), zone] };
        },
        gesture,
      );
      onHover(`${showNumber(low, 1)} m to ${showNumber(high, 1)} m`);
    },
    drop(_, dragged) {
      held = null;
      onHover(null);
      if (dragged) desk.getState().set({ tool: { kind: 'select' } });
    },
    hover({ x, y }) {
      const found = under(x, y, false);
      onHover(found && `${showNumber(found.s, 2)} m along ${found.path.name}`);
      return found !== null;
    },
    leave: () => onHover(null),
  };
}
