import { ANCHORS, type Anchor, type Chassis, type Attachment, type Rider } from '@fleet-rail/core';
import { changeAttachment, changeRider } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { Buttons, FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { useDesk } from '../../state/desk-store';

const ANCHOR_NAMES: Record<Anchor, string> = {
  origin: 'Its origin',
  bothAxles: 'Both axles',
  rearAxle: 'Its rear axle',
  frontAxle: 'Its front axle',
};

const PLACES: readonly { key: keyof Chassis; label: string }[] = [
  { key: 'frontAxle', label: 'Front axle' },
  { key: 'rearAxle', label: 'Rear axle' },
  { key: 'frontCoupling', label: 'Front coupling' },
  { key: 'rearCoupling', label: 'Rear coupling' },
];

/** Axles if none were found in the model: a metre to either side of its origin. */
const PLAIN: Chassis = { frontAxle: 1, rearAxle: -1, frontCoupling: 1.5, rearCoupling: -1.5 };

/** Anchor of a rider on its path, and its axles and couplings along its nose. */
export function AxlesSection({ rider, attachment }: { rider: Rider; attachment: Attachment }) {
  const edit = useDesk((state) => state.edit);
  const { chassis } = rider;
  const change = (next: Chassis, gesture?: string) =>
    edit(
      'Axles',
      changeRider(rider.id, (before) => ({ ...before, chassis: next })),
      gesture,
    );
  return (
    <Fold title="Axles and couplings">
      {chassis === null ? (
        <>
          <Hint>No axles found in the model; its origin is on the path.</Hint>
          <Buttons>
            <Button onPress={() => change(PLAIN)}>Set axles</Button>
          </Buttons>
        </>
      ) : (
        <>
          <Select
            label="On the path"
            options={ANCHORS.map((id) => ({ id, name: ANCHOR_NAMES[id] }))}
            value={attachment.anchor}
            onChange={(anchor) =>
              edit(
                'Facing',
                changeAttachment(rider.id, (before) => ({ ...before, anchor })),
              )
            }
          />
          <Hint>Distance ahead of the origin:</Hint>
          <FieldPair>
            {PLACES.map(({ key, label }) => (
              <QuantityField
                key={key}
                label={label}
                kind="length"
                value={chassis[key]}
                step={0.05}
                onChange={(value, gesture) => change({ ...chassis, [key]: value }, gesture)}
              />
            ))}
          </FieldPair>
        </>
      )}
    </Fold>
  );
}
