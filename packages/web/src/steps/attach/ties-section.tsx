import type { Attachment, Rider, Vec3 } from '@fleet-rail/core';
import { changeAttachment } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk } from '../../state/desk-store';

/** How a rider keeps to its leader, and where its whole ride was moved: what a string or a formation gave it. */
export function TiesSection({ rider, attachment }: { rider: Rider; attachment: Attachment }) {
  const edit = useDesk((state) => state.edit);
  const { coupledTo, pacedBy, rideTransform } = attachment;
  const change = (label: string, part: Partial<Attachment>, gesture?: string) =>
    edit(
      label,
      changeAttachment(rider.id, (before) => ({ ...before, ...part })),
      gesture,
    );
  if (!coupledTo && !pacedBy && !rideTransform) return null;
  return (
    <>
      <FieldGrid>
        {coupledTo && (
          <QuantityField
            label="Gap ahead"
            kind="length"
            value={coupledTo.gap}
            min={0}
            max={1e6}
            step={0.05}
            onChange={(gap, gesture) => change('Gap', { coupledTo: { ...coupledTo, gap } }, gesture)}
          />
        )}
        {pacedBy && (
          <>
            <QuantityField
              label="Delay"
              kind="frame"
              value={pacedBy.delay}
              onChange={(delay, gesture) => change('Delay', { pacedBy: { ...pacedBy, delay } }, gesture)}
            />
            <QuantityField
              label="Speed ×"
              kind="count"
              value={pacedBy.rate}
              min={1e-3}
              max={1e3}
              step={0.01}
              onChange={(rate, gesture) => change('Speed', { pacedBy: { ...pacedBy, rate } }, gesture)}
            />
          </>
        )}
      </FieldGrid>
      {rideTransform && (
        <>
          <Hint>Transform of the ride</Hint>
          <FieldGrid>
            {(['X', 'Y', 'Z'] as const).map((axis, k) => (
              <QuantityField
                key={axis}
                label={`By ${axis}`}
                kind="length"
                value={rideTransform.translation[k]}
                step={0.1}
                onChange={(value, gesture) => {
                  const translation = [...rideTransform.translation] as Vec3;
                  translation[k] = value;
                  change('Move the ride', { rideTransform: { ...rideTransform, translation } }, gesture);
                }}
              />
            ))}
            <QuantityField
              label="Turned left"
              kind="angle"
              value={rideTransform.turn}
              onChange={(turn, gesture) =>
                change('Turn the ride', { rideTransform: { ...rideTransform, turn } }, gesture)
              }
            />
            <QuantityField
              label="Scale"
              kind="count"
              value={rideTransform.size}
              min={1e-3}
              max={1e3}
              step={0.05}
              onChange={(size, gesture) =>
                change('Size of the ride', { rideTransform: { ...rideTransform, size } }, gesture)
              }
            />
          </FieldGrid>
          <Buttons>
            <Button onPress={() => change('Reset the ride', { rideTransform: null })}>
              Reset to the path
            </Button>
          </Buttons>
        </>
      )}
    </>
  );
}
