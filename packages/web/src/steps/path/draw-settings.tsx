import { lazy, Suspense, useMemo, useState } from 'react';
import styled from 'styled-components';
import { PathError, compilePath, heightProfile } from '@fleet-rail/core';
import { drawnPath, type DrawKind } from '../../edits/drawn-path';
import { waypointRider } from '../../edits/waypoints';
import { groundHeightOf } from '../../workers/scene-assets/ground-height';
import { showNumber } from '../../ui/quantity';
import { Button } from '../../ui/button';
import { FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { GridChoice } from '../shared/grid-choice';
import { useDesk, useDeskStore, type DrawSettings as Settings } from '../../state/desk-store';
import { finishDrawing } from '../../commands/drawing';

const KINDS: readonly { id: DrawKind; name: string }[] = [
  { id: 'bezier', name: 'Bézier, with handles' },
  { id: 'through', name: 'Curve through the points' },
  { id: 'bspline', name: 'B-spline, points pull' },
  { id: 'polyline', name: 'Straight runs' },
  { id: 'arc', name: 'Arc through three points' },
];

/** Charts are loaded when the first is shown; room is kept for it. */
const ProfileChart = lazy(() => import('./profile-chart'));

const ChartRoom = styled.div`
  height: 120px;
`;

const Row = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
`;

/** While drawing: what clicks become, what they snap to, and a place typed in numbers. */
export function DrawSettings() {
  const desk = useDeskStore();
  const drawing = useDesk((state) => state.drawing);
  const hasGround = useDesk((state) => state.ground !== null);
  const set = useDesk((state) => state.set);
  const rides = useDesk(({ shot, riderId }) => {
    const id = waypointRider(shot, riderId);
    return shot.riders.find((rider) => rider.id === id) ?? null;
  });
  const [typed, setTyped] = useState<[number, number, number]>([0, 0, 0]);
  const change = (settings: Partial<Settings>) => set({ drawing: { ...drawing, ...settings } });
  const add = () => {
    const { tool } = desk.getState();
    if (tool.kind !== 'draw') return;
    const places = [...tool.places, { position: typed, straight: false }];
    set({ tool: { kind: 'draw', places } });
    if (drawing.kind === 'arc' && places.length === 3) finishDrawing(desk, false);
  };
  return (
    <Section>
      <SectionTitle>Drawing</SectionTitle>
      <Select
        label="Points become"
        options={KINDS}
        value={drawing.kind}
        onChange={(kind) => change({ kind })}
      />
      <Hint>Shift makes the next run straight, along one of eight directions.</Hint>
      <Row>
        <Hint>Grid</Hint>
        <GridChoice />
      </Row>
      <Tick isSelected={drawing.toPoints} onChange={(toPoints) => change({ toPoints })}>
        Snap to points of other paths
      </Tick>
      <Tick
        isSelected={drawing.toGround && hasGround}
        isDisabled={!hasGround}
        onChange={(toGround) => change({ toGround })}
      >
        Snap to the ground{hasGround ? '' : ' (this shot has none)'}
      </Tick>
      {drawing.toGround && hasGround && (
        <QuantityField
          label="Above the ground"
          kind="length"
          value={drawing.above}
          min={0}
          step={0.1}
          onChange={(above) => change({ above })}
        />
      )}
      <Tick
        isSelected={drawing.seconds !== null}
        onChange={(on) =>
          change({ seconds: on ? 1 : null, ...(on && drawing.kind === 'bezier' ? { kind: 'through' } : {}) })
        }
      >
        Clicks at equal intervals
      </Tick>
      {drawing.seconds !== null && (
        <>
          <QuantityField
            label="Interval"
            kind="time"
            value={drawing.seconds}
            min={0.01}
            max={1e4}
            step={0.1}
            onChange={(seconds) => change({ seconds })}
          />
          <Hint>
            {rides === null ? 'A new camera' : rides.badge} follows it: one click every{' '}
            {showNumber(drawing.seconds, 2)} s.
          </Hint>
        </>
      )}
      <DrawnProfile />
      <FieldGrid>
        {(['X', 'Y', 'Z'] as const).map((axis, k) => (
          <QuantityField
            key={axis}
            label={`${axis} to add`}
            kind="length"
            value={typed[k]}
            min={-1e7}
            max={1e7}
            step={drawing.grid || 0.1}
            onChange={(value) =>
              setTyped((before) => before.map((old, i) => (i === k ? value : old)) as typeof typed)
            }
          />
        ))}
      </FieldGrid>
      <Button onPress={add}>Add this point</Button>
    </Section>
  );
}

const PLACES = 120;

/** Heights of the drawing so far, and of the ground under it. */
function DrawnProfile() {
  const tool = useDesk((state) => state.tool);
  const kind = useDesk((state) => state.drawing.kind);
  const ground = useDesk((state) => state.ground);
  const places = tool.kind === 'draw' ? tool.places : null;
  const drawn = useMemo(() => {
    if (places === null || places.length < 2) return null;
    const path = drawnPath('Drawn', places, false, kind);
    try {
      const curve = compilePath(path);
      return { path, curve, profile: heightProfile(curve, groundHeightOf(ground), PLACES) };
    } catch (error) {
      if (error instanceof PathError) return null;
      throw error;
    }
  }, [places, kind, ground]);
  if (drawn === null) return null;
  return (
    <ChartRoom role="img" aria-label="Height of what is drawn">
      <Suspense>
        <ProfileChart {...drawn} rider={null} track={null} />
      </Suspense>
    </ChartRoom>
  );
}
