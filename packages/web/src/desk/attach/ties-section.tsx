import type { Hitch, Rider, Vec3 } from '@fleet-rail/core';
import { changeHitch } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk } from '../desk-store';

/** How a rider keeps to its leader, and where its whole ride was moved: what a string or a formation gave it. */
export function TiesSection({ rider, hitch }: { rider: Rider; hitch: Hitch }) {
  const edit = useDesk((state) => state.edit);
  const { follows, pacedBy, displaced } = hitch;
  const change = (label: string, part: Partial<Hitch>, gesture?: string) =>
    edit(
      label,
      changeHitch(rider.id, (before) => ({ ...before, ...part })),
      gesture,
    );
  if (!follows && !pacedBy && !displaced) return null;
  return (
    <>
      <FieldGrid>
        {follows && (
          <QuantityField
            label="Gap ahead"
            kind="length"
            value={follows.gap}
            min={0}
            max={1e6}
            step={0.05}
            onChange={(gap, gesture) => change('Gap', { follows: { ...follows, gap } }, gesture)}
          />
        )}
        {pacedBy && (
          <>
            <QuantityField
              label="Later by"
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
      {displaced && (
        <>
          <Hint>Its whole ride is moved:</Hint>
          <FieldGrid>
            {(['X', 'Y', 'Z'] as const).map((axis, k) => (
              <QuantityField
                key={axis}
                label={`By ${axis}`}
                kind="length"
                value={displaced.translation[k]}
                step={0.1}
                onChange={(value, gesture) => {
                  const translation = [...displaced.translation] as Vec3;
                  translation[k] = value;
                  change('Move the ride', { displaced: { ...displaced, translation } }, gesture);
                }}
              />
            ))}
            <QuantityField
              label="Turned left"
              kind="angle"
              value={displaced.turn}
              onChange={(turn, gesture) =>
                change('Turn the ride', { displaced: { ...displaced, turn } }, gesture)
              }
            />
            <QuantityField
              label="Scale"
              kind="count"
              value={displaced.size}
              min={1e-3}
              max={1e3}
              step={0.05}
              onChange={(size, gesture) =>
                change('Size of the ride', { displaced: { ...displaced, size } }, gesture)
              }
            />
          </FieldGrid>
          <Buttons>
            <Button onPress={() => change('Put the ride back', { displaced: null })}>
              Put the ride back on its path
            </Button>
          </Buttons>
        </>
      )}
    </>
  );
}
