import type { NavigateFunction } from 'react-router';
import { acceptAttaching } from '../../commands/attach-previews';
import type { DeskStore } from '../../state/desk-store';
import { finishDrawing, takePlaceBack } from '../../commands/drawing';
import { finishEdges } from '../../commands/edge-path';
import { acceptOperation, cancelOperation } from '../../commands/operate';
import { STEPS } from '../../state/steps';

/** Context of a key press. */
export interface KeyPress {
  readonly key: string;
  readonly shift: boolean;
  /** With Ctrl or Command. */
  readonly ctrl: boolean;
  /** Text fields and controls keep the keys they act on. */
  readonly typing: boolean;
  readonly onControl: boolean;
  readonly desk: DeskStore;
  readonly shotId: string;
  readonly navigate: NavigateFunction;
}

/** Keys, their description in the list, and their action if the desk itself handles them. */
export interface Shortcut {
  readonly keys: string;
  readonly does: string;
  /** Handles the key if it applies; returns whether it did. */
  readonly act?: (press: KeyPress) => boolean;
}

const done = (act: () => void): true => {
  act();
  return true;
};

const enters = ({ key, onControl, typing, ctrl }: KeyPress) =>
  key === 'Enter' && !onControl && !typing && !ctrl;
const plain = ({ typing, ctrl }: KeyPress) => !typing && !ctrl;

/** All shortcuts, in the order in which they are tried and listed. */
export const SHORTCUTS: readonly Shortcut[] = [
  {
    keys: `1 – ${STEPS.length}`,
    does: 'Go to a step',
    act: (press) => {
      const step = plain(press) && /^[1-9]$/.test(press.key) && STEPS[Number(press.key) - 1];
      return step ? done(() => void press.navigate(`/shots/${press.shotId}/${step.id}`)) : false;
    },
  },
  {
    keys: 'Space',
    does: 'Play or pause',
    act: (press) => {
      const { playing, set } = press.desk.getState();
      return plain(press) && press.key === ' ' && !press.onControl && done(() => set({ playing: !playing }));
    },
  },
  {
    keys: 'Shift D',
    does: 'Show drawing statistics',
    act: (press) => {
      const { stats, set } = press.desk.getState();
      return plain(press) && press.shift && press.key === 'D' && done(() => set({ stats: !stats }));
    },
  },
  {
    keys: 'Shift S',
    does: 'Draw a still stage',
    act: (press) => {
      const { drawStage } = press.desk.getState();
      return plain(press) && press.shift && press.key === 'S' && drawStage !== null && done(drawStage);
    },
  },
  {
    keys: ', and .',
    does: 'One frame back or forward',
    act: (press) => {
      if (!plain(press) || (press.key !== ',' && press.key !== '.')) return false;
      const { set, goToFrame, frame } = press.desk.getState();
      set({ playing: false });
      return done(() => goToFrame(frame + (press.key === '.' ? 1 : -1)));
    },
  },
  {
    keys: 'Ctrl Z',
    does: 'Undo',
    act: ({ ctrl, shift, typing, key, desk }) =>
      ctrl && !typing && !shift && key.toLowerCase() === 'z' && done(desk.getState().undo),
  },
  {
    keys: 'Ctrl Shift Z, Ctrl Y',
    does: 'Redo',
    act: ({ ctrl, shift, typing, key, desk }) =>
      ctrl &&
      !typing &&
      ((shift && key.toLowerCase() === 'z') || key.toLowerCase() === 'y') &&
      done(desk.getState().redo),
  },
  {
    keys: 'Esc',
    does: 'Cancel the preview, drawing or picking',
    act: ({ key, ctrl, desk }) => {
      const { tool, attaching, operation, set } = desk.getState();
      if (key !== 'Escape' || ctrl) return false;
      // A pick that belongs to attaching ends alone; the plan stays.
      if (tool.kind !== 'select' || attaching)
        return done(() =>
          set({ tool: { kind: 'select' }, ...(tool.kind === 'pickStart' ? {} : { attaching: null }) }),
        );
      return operation !== null && done(() => cancelOperation(desk));
    },
  },
  {
    keys: 'Enter',
    does: 'Finish drawing; accept the preview',
    act: (press) => {
      const { desk, key, typing, ctrl } = press;
      const { tool, operation, attaching } = desk.getState();
      // Enter in a field first takes its number up; one that comes through from there accepts.
      if (typing && key === 'Enter' && !ctrl && operation !== null) return acceptOperation(desk);
      if (!enters(press)) return false;
      if (tool.kind === 'draw') return done(() => finishDrawing(desk, false));
      if (tool.kind === 'edges') return done(() => finishEdges(desk));
      if (operation !== null) return done(() => acceptOperation(desk));
      return attaching !== null && done(() => acceptAttaching(desk));
    },
  },
  {
    keys: 'Backspace',
    does: 'While drawing: delete the last point',
    act: (press) => {
      const { kind } = press.desk.getState().tool;
      const draws = kind === 'draw' || kind === 'edges';
      return plain(press) && press.key === 'Backspace' && draws && done(() => takePlaceBack(press.desk));
    },
  },
  { keys: 'Shift', does: 'While drawing: a straight run. On points: choose more, or drag a box' },
  { keys: 'Double click', does: 'On the selected path: add a point. In the run diagram: add a key' },
  { keys: 'Arrow keys', does: 'On the stage: move the chosen points by the grid; in their list with Alt' },
  { keys: 'Page Up, Page Down', does: 'On the stage: raise or lower the chosen points' },
  { keys: 'Arrow keys', does: 'In a number field, on a key or on a cut: one step; with Shift ten' },
  {
    keys: 'Delete',
    does: 'Delete the chosen points; on a key of the diagram, the chosen keys; on a cut, the cut',
  },
  { keys: 'Space', does: 'On a key of the diagram: add it to the selection, or remove it' },
  { keys: 'Wheel, Shift wheel', does: 'Over the run diagram: zoom in time, zoom in distance' },
  { keys: 'Shift drag', does: 'Over the run diagram: choose the keys in a box' },
];
