import type { Bank } from '@fleet-rail/core';
import { changeAttachment } from '../../edits/rider-edits';
import { showNumber } from '../../ui/quantity';
import type { ToolContext, StageTool } from './stage-tool';
import { selectTool } from './select-tool';

/** Change of the bank's amount by a pixel sideways: degrees, or a factor. */
const PER_PIXEL = { none: 0.1, amount: 0.1, physical: 0.02 };

/** Drags the selected rider's bank by the rider itself; everywhere else the ordinary hand. */
export function bankTool(context: ToolContext): StageTool {
  const { stage, desk, onHover } = context;
  const ordinary = selectTool(context, false);
  let held: { id: string; x: number; bank: Bank; gesture: string } | null = null;
  const banked = () => {
    const { shot, riderId } = desk.getState();
    return shot.riders.find(({ id, attachment }) => id === riderId && attachment !== null) ?? null;
  };
  return {
    ...ordinary,
    press(at) {
      const rider = banked();
      if (!rider?.attachment || stage.figures.pick(stage.projection.rayAt(at.x, at.y)) !== rider.id)
        return ordinary.press?.(at) ?? false;
      held = { id: rider.id, x: at.x, bank: rider.attachment.bank, gesture: `bank ${at.time}` };
      return true;
    },
    drag(at) {
      if (held === null) return ordinary.drag?.(at);
      const { id, x, bank, gesture } = held;
      const mode = bank.mode === 'none' ? 'amount' : bank.mode;
      const from = bank.mode === 'none' ? 0 : bank.amount;
      const amount = Number((from + (at.x - x) * PER_PIXEL[bank.mode]).toFixed(2));
      const change = changeAttachment(id, (attachment) => ({
        ...attachment,
        bank: { ...attachment.bank, mode, amount },
      }));
      desk.getState().edit('Bank', change, gesture);
      onHover(
        `Bank ${mode === 'amount' ? `${showNumber(amount, 1)}° at a radius of 10 m` : `${showNumber(amount, 2)} × the physical angle`}`,
      );
    },
    drop(at, dragged) {
      if (held === null) return ordinary.drop?.(at, dragged);
      held = null;
      onHover(null);
    },
    hover(at) {
      const rider = banked();
      const over = rider !== null && stage.figures.pick(stage.projection.rayAt(at.x, at.y)) === rider.id;
      onHover(over ? 'Drag sideways to bank' : null);
      return over || (ordinary.hover?.(at) ?? false);
    },
    leave() {
      onHover(null);
      ordinary.leave?.();
    },
  };
}
