import type { DeskStore } from '../../state/desk-store';
import type { StepId } from '../../state/steps';
import type { StageView } from '../stage/stage-view';

/** A pointer on the stage: pixels from its corner, and the keys held with it. */
export interface StagePointer {
  readonly x: number;
  readonly y: number;
  readonly shift: boolean;
  readonly time: number;
}

/** A box that is being dragged, pixels. */
export interface Box {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** Context of the tools. */
export interface ToolContext {
  readonly stage: StageView;
  readonly desk: DeskStore;
  readonly station: StepId;
  readonly onHover: (text: string | null) => void;
  readonly onBox: (box: Box | null) => void;
}

/** Pointer events of a tool. Presses that hit nothing move the camera. */
export interface StageTool {
  /** True where the press takes hold of something, which then follows the pointer. */
  press?(at: StagePointer): boolean;
  /** The pointer moves with something held. */
  drag?(at: StagePointer): void;
  /** Wheel turned during a drag, in steps away from the hand. */
  wheel?(steps: number): void;
  /** Ends a drag; false if the press was a mere click. */
  drop?(at: StagePointer, dragged: boolean): void;
  /** The pointer moves with nothing held; answers whether a click would do something there. */
  hover?(at: StagePointer): boolean;
  /** A press and release in one place. */
  click?(at: StagePointer): void;
  doubleClick?(at: StagePointer): void;
  leave?(): void;
}
