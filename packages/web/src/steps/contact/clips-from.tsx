import type { Rider } from '@fleet-rail/core';
import type { KeptModel } from '../../api/models';
import { borrowClips } from '../../edits/contact-edits';
import { Select } from '../../ui/select';
import { useDesk } from '../../state/desk-store';

const NONE = ' none';

/** Source of the clips: the model's own, or another model, such as an uploaded BVH motion. */
export function ClipsFrom({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const edit = useDesk((state) => state.edit);
  const kept = useDesk((state) => state.models);
  const source = useDesk(
    ({ shot }) => shot.models.find(({ id }) => id === rider.gait?.source)?.source.asset ?? NONE,
  );
  const lenders = kept.filter(({ id, facts }) => id !== model?.id && facts.clips.length > 0);
  if (model === null || lenders.length === 0) return null;
  return (
    <Select
      label="Clips from"
      options={[{ id: NONE, name: 'Its own model' }, ...lenders.map(({ id, name }) => ({ id, name }))]}
      value={source}
      onChange={(id) => {
        if (id !== NONE || rider.gait)
          edit('Clips', borrowClips(rider.id, lenders.find((one) => one.id === id) ?? null));
      }}
    />
  );
}
