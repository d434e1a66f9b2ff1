import { AXES, type Axis, type Offset, type Rider } from '@fleet-rail/core';
import { changeHitch } from '../../edits/rider-edits';
import { Choice } from '../../ui/choice';
import { FieldGrid, Hint, PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { useDesk, useSelectedRider } from '../desk-store';
import { NotRiding } from '../not-riding';

const MODES = [
  { id: 'path', name: 'Along the path' },
  { id: 'keep', name: 'As it rests' },
] as const;

const REFERENCES = [
  { id: 'world', name: 'The world’s up' },
  { id: 'path', name: 'The path’s own' },
] as const;

const OFFSETS: readonly { key: keyof Offset; label: string; kind: 'length' | 'angle' }[] = [
  { key: 'along', label: 'Ahead', kind: 'length' },
  { key: 'side', label: 'To the left', kind: 'length' },
  { key: 'rise', label: 'Up', kind: 'length' },
  { key: 'yaw', label: 'Turn left', kind: 'angle' },
  { key: 'pitch', label: 'Nose up', kind: 'angle' },
  { key: 'roll', label: 'Lean right', kind: 'angle' },
];

/** Which way the rider looks, and where it sits beside its place on the path. */
export function FacingStation() {
  const rider = useSelectedRider();
  return (
    <>
      <PanelTitle>Facing</PanelTitle>
      {rider?.hitch ? <Facing key={rider.id} rider={rider} /> : <NotRiding rider={rider} />}
    </>
  );
}

function Facing({ rider }: { rider: Rider }) {
  const edit = useDesk((state) => state.edit);
  const { facing, offset } = rider.hitch as NonNullable<Rider['hitch']>;
  const change = (part: Partial<typeof facing>) =>
    edit(
      'Facing',
      changeHitch(rider.id, (hitch) => ({ ...hitch, facing: { ...hitch.facing, ...part } })),
    );
  const named = (axes: readonly Axis[]) =>
    axes.map((axis) => ({ id: axis, name: axis.toUpperCase().replace('-', '−') }));
  const squareTo = (axis: Axis) => AXES.filter((other) => other[1] !== axis[1]);
  return (
    <>
      <Section>
        <SectionTitle>
          {rider.badge} {rider.name} faces
        </SectionTitle>
        <div>
          <Choice
            label="Faces"
            options={MODES}
            value={facing.mode === 'keep' ? 'keep' : 'path'}
            onChange={(mode) => change({ mode })}
          />
        </div>
        {facing.mode !== 'keep' && (
          <>
            <div>
              <Choice
                label="Up is"
                options={REFERENCES}
                value={facing.reference === 'path' ? 'path' : 'world'}
                onChange={(reference) => change({ reference })}
              />
            </div>
            <Hint>
              {facing.reference === 'path'
                ? 'Up is carried along the path without twist: for loops, helices and walls.'
                : 'Up stays up, but for the roll of the path’s points.'}
            </Hint>
          </>
        )}
        {facing.mode === 'aim' && (
          <Hint>Aiming is kept in the shot, and plays as facing the path for now.</Hint>
        )}
        <FieldGrid>
          <Select
            label="Nose of the model"
            options={named(AXES)}
            value={facing.forward}
            onChange={(forward) => {
              // A roof in line with the nose is no roof: take the first axis that is square to it.
              const up = facing.up[1] === forward[1] ? squareTo(forward)[0] : facing.up;
              change({ forward, up });
            }}
          />
          <Select
            label="Its roof"
            options={named(squareTo(facing.forward))}
            value={facing.up}
            onChange={(up) => change({ up })}
          />
        </FieldGrid>
      </Section>
      <Section>
        <SectionTitle>Beside its place</SectionTitle>
        <FieldGrid>
          {OFFSETS.map(({ key, label, kind }) => (
            <QuantityField
              key={key}
              label={label}
              kind={kind}
              value={offset[key]}
              step={kind === 'length' ? 0.05 : 1}
              onChange={(value, gesture) =>
                edit(
                  'Offset',
                  changeHitch(rider.id, (hitch) => ({ ...hitch, offset: { ...hitch.offset, [key]: value } })),
                  gesture,
                )
              }
            />
          ))}
        </FieldGrid>
      </Section>
    </>
  );
}
