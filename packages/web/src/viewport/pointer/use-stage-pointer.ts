import { useEffect, type RefObject } from 'react';
import type { DeskStore, Tool } from '../../state/desk-store';
import { insertAt, markAt } from '../../commands/at-place';
import type { StepId } from '../../state/steps';
import type { StageView } from '../stage/stage-view';
import { bankTool } from '../tools/bank-tool';
import { drawTool } from '../tools/draw-tool';
import {
  edgesTool,
  pickPathTool,
  pickTargetTool,
  putRiderTool,
  placeOnPathTool,
  startAt,
} from '../tools/pick-tools';
import { stopAt, zoneTool } from '../tools/pace-tools';
import { rigTool } from '../tools/rig-tool';
import { tableTool } from '../tools/table-tool';
import { selectTool } from '../tools/select-tool';
import type { Box, ToolContext, StagePointer, StageTool } from '../tools/stage-tool';

const CLICK_PIXELS = 4;

function makeTools(context: ToolContext): Record<Tool['kind'], StageTool> {
  return {
    select: selecting(context),
    box: selectTool(context, true),
    draw: drawTool(context),
    pickPath: pickPathTool(context),
    pickStart: placeOnPathTool(context, startAt),
    pickTarget: pickTargetTool(context),
    insert: placeOnPathTool(context, insertAt),
    mark: placeOnPathTool(context, markAt),
    putRider: putRiderTool(context),
    edges: edgesTool(context),
    pickStop: placeOnPathTool(context, stopAt),
    dragZone: zoneTool(context),
  };
}

/** The ordinary hand, with what a step lets be dragged beside it. */
function selecting(context: ToolContext): StageTool {
  if (context.station === 'facing') return bankTool(context);
  if (context.station === 'attach' || context.station === 'pace') return tableTool(context);
  return context.station === 'contact' ? rigTool(context) : selectTool(context, false);
}

/** Pointer handling on the stage, by the current tool. */
export function useStagePointer(
  canvas: RefObject<HTMLCanvasElement | null>,
  stage: StageView | null,
  desk: DeskStore,
  step: StepId,
  onHover: (text: string | null) => void,
  onBox: (box: Box | null) => void,
): void {
  useEffect(() => {
    const element = canvas.current;
    if (!element || !stage) return;
    const tools = makeTools({ stage, desk, station: step, onHover, onBox });
    const held = (): StageTool => tools[desk.getState().tool.kind];
    /** The tool that took hold of something, and whether the pointer has moved since. */
    let drag: { tool: StageTool; moved: boolean } | null = null;
    const pointer = (event: MouseEvent): StagePointer => {
      const box = element.getBoundingClientRect();
      return {
        x: event.clientX - box.left,
        y: event.clientY - box.top,
        shift: event.shiftKey,
        time: event.timeStamp,
      };
    };
    // Told by the screen, not the stage: that may move under a press that stays where it is.
    let pressedAt: { x: number; y: number } | null = null;
    const isFar = ({ clientX, clientY }: MouseEvent) =>
      pressedAt !== null && Math.hypot(clientX - pressedAt.x, clientY - pressedAt.y) >= CLICK_PIXELS;
    const down = (event: PointerEvent) => {
      if (event.button !== 0) return;
      element.focus({ preventScroll: true });
      pressedAt = { x: event.clientX, y: event.clientY };
      const tool = held();
      if (!tool.press?.(pointer(event))) return;
      drag = { tool, moved: false };
      stage.views.setMovable(false);
      element.setPointerCapture(event.pointerId);
    };
    const move = (event: PointerEvent) => {
      const at = pointer(event);
      if (drag !== null) {
        drag.moved ||= isFar(event);
        if (drag.moved) drag.tool.drag?.(at);
        return;
      }
      element.style.cursor = held().hover?.(at) ? 'pointer' : '';
    };
    const up = (event: PointerEvent) => {
      const at = pointer(event);
      const clicked = pressedAt !== null && !isFar(event) && event.button === 0;
      const was = drag;
      const tool = held();
      letGo(at);
      if (clicked && was === null) tool.click?.(at);
    };
    const letGo = (at: StagePointer) => {
      drag?.tool.drop?.(at, drag.moved);
      drag = null;
      pressedAt = null;
      stage.views.setMovable(true);
    };
    const turn = (event: WheelEvent) => {
      if (!drag?.tool.wheel || event.deltaY === 0) return;
      event.preventDefault();
      drag.tool.wheel(event.deltaY < 0 ? 1 : -1);
    };
    const cancel = (event: PointerEvent) => letGo(pointer(event));
    const twice = (event: MouseEvent) => held().doubleClick?.(pointer(event));
    const leave = () => Object.values(tools).forEach((tool) => tool.leave?.());
    element.addEventListener('pointerdown', down, { capture: true });
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerup', up);
    element.addEventListener('pointercancel', cancel);
    element.addEventListener('pointerleave', leave);
    element.addEventListener('dblclick', twice);
    element.addEventListener('wheel', turn, { passive: false });
    return () => {
      element.removeEventListener('pointerdown', down, { capture: true });
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerup', up);
      element.removeEventListener('pointercancel', cancel);
      element.removeEventListener('pointerleave', leave);
      element.removeEventListener('dblclick', twice);
      element.removeEventListener('wheel', turn);
    };
  }, [canvas, stage, desk, step, onHover, onBox]);
}
