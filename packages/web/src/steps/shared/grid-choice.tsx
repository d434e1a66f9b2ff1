import { Choice } from '../../ui/choice';
import { useDesk } from '../../state/desk-store';

const GRIDS = [
  { id: '1', name: '1 m' },
  { id: '0.1', name: '0.1 m' },
  { id: '0', name: 'Off' },
] as const;

/** The grid, which drags and arrow keys keep to as well as drawing. */
export function GridChoice() {
  const drawing = useDesk((state) => state.drawing);
  const set = useDesk((state) => state.set);
  return (
    <Choice
      label="Grid"
      options={GRIDS}
      value={String(drawing.grid) as (typeof GRIDS)[number]['id']}
      onChange={(grid) => set({ drawing: { ...drawing, grid: Number(grid) } })}
    />
  );
}
