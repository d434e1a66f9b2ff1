import { freeId, shapePath, type Shape, type Vec3 } from '@fleet-rail/core';
import { useId, useState } from 'react';
import { reshapePath, freePathName } from '../../edits/path-edits';
import { Button, PrimaryButton } from '../../ui/button';
import { useEscape } from '../../ui/use-escape';
import { Buttons, FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { putPaths } from '../../commands/drawing';

const FRESH: { readonly [K in Shape['kind']]: Extract<Shape, { kind: K }> } = {
  line: { kind: 'line', length: 20 },
  circle: { kind: 'circle', radius: 10 },
  ellipse: { kind: 'ellipse', width: 24, depth: 14 },
  helix: { kind: 'helix', radius: 6, turns: 3, rise: 3 },
  roundedRectangle: { kind: 'roundedRectangle', width: 24, depth: 16, radius: 4 },
  eight: { kind: 'eight', length: 40, width: 20, bridge: 4 },
};

const NAMES: readonly { id: Shape['kind']; name: string }[] = [
  { id: 'line', name: 'Line' },
  { id: 'circle', name: 'Circle' },
  { id: 'ellipse', name: 'Ellipse' },
  { id: 'helix', name: 'Helix' },
  { id: 'roundedRectangle', name: 'Rounded rectangle' },
  { id: 'eight', name: 'Figure of eight' },
];

const LABELS: Record<string, string> = {
  length: 'Length',
  radius: 'Radius',
  width: 'Width (X)',
  depth: 'Depth (Z)',
  turns: 'Turns',
  rise: 'Climb per turn',
  bridge: 'Bridge height',
};

/** A ready shape, added immediately and changed by its measures until it is right. */
export function ShapeCard({ onDone }: { onDone: () => void }) {
  const desk = useDeskStore();
  useEscape(onDone);
  const edit = useDesk((state) => state.edit);
  const [shape, setShape] = useState<Shape | null>(null);
  const [middle, setMiddle] = useState<Vec3>([0, 0, 0]);
  const [id, setId] = useState<string | null>(null);
  // All that is tried out here is one step.
  const gesture = `shape ${useId()}`;
  const show = (next: Shape, at: Vec3) => {
    setShape(next);
    setMiddle(at);
    const built = shapePath(next, at);
    const { shot } = desk.getState();
    if (id !== null && shot.paths.some((path) => path.id === id)) {
      edit(
        'Ready shape',
        reshapePath(id, ({ name }) => ({ ...built, id, name })),
        gesture,
      );
      return;
    }
    const name = freePathName(shot, NAMES.find(({ id: kind }) => kind === next.kind)?.name);
    const path = { ...built, id: freeId(name, []), name };
    if (putPaths(desk, 'Ready shape', [path], gesture)) setId(desk.getState().pathId);
  };
  const measures = shape ? Object.entries(shape).filter(([key]) => key !== 'kind') : [];
  return (
    <Section aria-label="Ready shape">
      <SectionTitle>Ready shape</SectionTitle>
      {shape === null ? (
        <Buttons>
          {NAMES.map(({ id: kind, name }) => (
            <Button key={kind} onPress={() => show(FRESH[kind], middle)}>
              {name}
            </Button>
          ))}
        </Buttons>
      ) : (
        <>
          <Select
            label="Shape"
            options={NAMES}
            value={shape.kind}
            onChange={(kind) => show(FRESH[kind], middle)}
          />
          <FieldGrid>
            {measures.map(([key, value]) => (
              <QuantityField
                key={key}
                label={LABELS[key]}
                kind={key === 'turns' ? 'count' : 'length'}
                value={value as number}
                min={key === 'rise' || key === 'bridge' ? -1e4 : 0.01}
                max={1e5}
                step={key === 'turns' ? 0.25 : 0.5}
                onChange={(next) => show({ ...shape, [key]: next } as Shape, middle)}
              />
            ))}
          </FieldGrid>
          <FieldGrid>
            {(['X', 'Y', 'Z'] as const).map((axis, k) => (
              <QuantityField
                key={axis}
                label={`Middle ${axis}`}
                kind="length"
                value={middle[k]}
                min={-1e6}
                max={1e6}
                step={0.5}
                onChange={(value) => show(shape, middle.map((old, i) => (i === k ? value : old)) as Vec3)}
              />
            ))}
          </FieldGrid>
        </>
      )}
      <Hint>All shapes run to the left, seen from above.</Hint>
      <Buttons>
        {shape === null ? (
          <Button onPress={onDone}>Cancel</Button>
        ) : (
          <PrimaryButton onPress={onDone}>Done</PrimaryButton>
        )}
      </Buttons>
    </Section>
  );
}
