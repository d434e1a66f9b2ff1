import { memo } from 'react';
import { Choice } from '../../ui/choice';
import { shownCuts } from './looked-through';
import { useDesk } from '../../state/desk-store';

const OWN = [
  { id: 'free', name: 'Free' },
  { id: 'plan', name: 'Plan' },
  { id: 'side', name: 'Side' },
  { id: 'front', name: 'Front' },
] as const;

type Choosable = (typeof OWN)[number]['id'] | `through ${string}`;

/** More cameras than this are looked through by their cuts, or from the Facing step. */
const MOST_CAMERAS = 3;

/** Views of the stage: its own, and the riders' cameras. */
export const ViewChoice = memo(function ViewChoice() {
  const view = useDesk((state) => state.view);
  const through = useDesk((state) => state.through);
  const cameras = useDesk((state) => state.shot.riders).filter(({ camera }) => camera !== null);
  const cut = useDesk((state) => shownCuts(state).length > 0);
  const set = useDesk((state) => state.set);
  const shown = cameras.filter(({ id }, i) => i < MOST_CAMERAS || id === through);
  const options: { id: Choosable; name: string }[] = [
    ...OWN,
    ...shown.map(({ id, badge }) => ({ id: `through ${id}` as const, name: `Through ${badge}` })),
  ];
  if (cut && cameras.length > 1) options.push({ id: 'through ', name: 'Through the cuts' });
  const value: Choosable =
    view === 'through'
      ? `through ${through ?? (cut && cameras.length > 1 ? '' : (cameras[0]?.id ?? ''))}`
      : view;
  return (
    <Choice
      label="View"
      options={options}
      value={value}
      onChange={(next) => {
        const own = OWN.find(({ id }) => id === next);
        if (own) set({ view: own.id });
        else set({ view: 'through', through: next.slice('through '.length) || null });
      }}
    />
  );
});
