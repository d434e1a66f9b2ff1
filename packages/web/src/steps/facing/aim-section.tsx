import type { Aim, AimTarget, Facing, Rider } from '@fleet-rail/core';
import { Crosshair } from 'lucide-react';
import { aimAt, changeAttachment } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { Buttons, FieldGrid, FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { QuantityFields, type NumberOf } from '../../ui/quantity-fields';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { attempt } from '../../commands/attempt';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { KeyList, withCount } from './key-list';

/** How closely the nose goes after its target. */
export const AIM_FIELDS: readonly NumberOf<Aim>[] = [
  { of: 'deadZone', label: 'Dead zone', kind: 'angle', min: 0, max: 180, step: 0.5 },
  { of: 'damping', label: 'Damping', kind: 'time', min: 0, max: 60, step: 0.05 },
  { of: 'yawLimit', label: 'Yaw limit', kind: 'angle', min: 0, max: 180 },
  { of: 'pitchLimit', label: 'Pitch limit', kind: 'angle', min: 0, max: 90 },
];

/** Target of a rider that aims, and its limits. */
export function AimSection({ rider, facing }: { rider: Rider; facing: Facing }) {
  const shows = useDesk((state) => state.shows);
  const set = useDesk((state) => state.set);
  const edit = useDesk((state) => state.edit);
  const { aim } = facing;
  const change = (part: Partial<Facing>, gesture?: string) =>
    edit(
      'Aim',
      changeAttachment(rider.id, (attachment) => ({
        ...attachment,
        facing: { ...attachment.facing, ...part },
      })),
      gesture,
    );
  const changeAim = (part: Partial<Aim>, gesture?: string) => change({ aim: { ...aim, ...part } }, gesture);
  return (
    <>
      <TargetFields rider={rider} facing={facing} change={change} />
      <PickTarget riderId={rider.id} />
      <FieldGrid>
        <QuantityFields fields={AIM_FIELDS} value={aim} onChange={changeAim} />
      </FieldGrid>
      <Tick isSelected={shows.sights} onChange={(sights) => set({ shows: { ...shows, sights } })}>
        Show lines of sight
      </Tick>
      <Fold title={withCount('Aim influence', aim.influence)}>
        <Hint>0 faces along the path, 1 faces the target.</Hint>
        <KeyList rider={rider} channel="aim" name="aim" />
      </Fold>
    </>
  );
}

/** Makes the next click on the stage the target of a rider. */
export function PickTarget({ riderId }: { riderId: string }) {
  const tool = useDesk((state) => state.tool);
  const set = useDesk((state) => state.set);
  return (
    <Buttons>
      <Button
        isDisabled={tool.kind === 'pickTarget'}
        onPress={() => set({ tool: { kind: 'pickTarget', riderId } })}
      >
        <Crosshair aria-hidden /> Pick on the stage
      </Button>
    </Buttons>
  );
}

/** Target: another rider or a part of one, a point, or a point ahead on its own path. */
export function TargetFields(props: {
  rider: Rider;
  facing: Pick<Facing, 'target' | 'ahead'>;
  change: (part: Partial<Pick<Facing, 'target' | 'ahead'>>, gesture?: string) => void;
}) {
  const { rider, facing, change } = props;
  const desk = useDeskStore();
  const shot = useDesk((state) => state.shot);
  const models = useDesk((state) => state.models);
  const { target, ahead } = facing;
  const other = shot.riders.find(({ id }) => id === target?.rider);
  const asset = shot.models.find(({ id }) => id === other?.model)?.source.asset;
  const facts = models.find(({ id }) => id === asset)?.facts;
  const take = (next: AimTarget | null) => attempt(desk, 'Aim', aimAt(rider.id, next));
  return (
    <>
      <FieldPair>
        <Select
          label="Target"
          options={[
            { id: '', name: 'None' },
            ...(rider.attachment ? [{ id: ' ahead', name: 'A point ahead' }] : []),
            ...(target?.point ? [{ id: ' point', name: 'A point' }] : []),
            ...shot.riders
              .filter(({ id }) => id !== rider.id)
              .map(({ id, badge, name }) => ({ id, name: `${badge} ${name}` })),
          ]}
          value={target?.rider ?? (target?.point ? ' point' : ahead !== 0 ? ' ahead' : '')}
          onChange={(id) => {
            if (id === ' ahead') change({ target: null, ahead: 5 });
            else if (id === '') change({ target: null, ahead: 0 });
            else if (id !== ' point') take({ rider: id });
          }}
        />
        {other && facts && (
          <Select
            label="Part"
            options={[
              { id: '', name: 'Its origin' },
              ...facts.nodes.filter((name) => name !== '').map((name) => ({ id: name, name })),
            ]}
            value={target?.node ?? ''}
            onChange={(node) => {
              const at = facts.places[facts.nodes.indexOf(node)];
              take(node === '' || !at ? { rider: other.id } : { rider: other.id, node, at: [...at] });
            }}
          />
        )}
        {target === null && ahead !== 0 && (
          <QuantityField
            label="Ahead"
            kind="length"
            value={ahead}
            step={0.5}
            onChange={(metres, gesture) => change({ ahead: metres }, gesture)}
          />
        )}
      </FieldPair>
      {target?.point && (
        <FieldGrid>
          {(['X', 'Y', 'Z'] as const).map((axis, k) => (
            <QuantityField
              key={axis}
              label={axis}
              kind="length"
              value={target.point?.[k] ?? 0}
              step={0.1}
              onChange={(value, gesture) => {
                const point = [...(target.point ?? [0, 0, 0])] as [number, number, number];
                point[k] = value;
                change({ target: { point } }, gesture);
              }}
            />
          ))}
        </FieldGrid>
      )}
    </>
  );
}
