import {
  anglesOf,
  evaluateShot,
  offsetRotation,
  placementAt,
  putRider,
  withRider,
  type Placement,
  type Rider,
  type Vec3,
} from '@fleet-rail/core';
import { MousePointerClick } from 'lucide-react';
import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { sceneAssets } from '../../../workers/scene-assets/ground-height';
import { Button } from '../../../ui/button';
import { Buttons, FieldGrid, Hint } from '../../../ui/panel';
import { QuantityField } from '../../../ui/quantity-field';
import { Tick } from '../../../ui/tick';
import { attempt } from '../../../commands/attempt';
import { useDesk, useDeskStore } from '../../../state/desk-store';
import { GridChoice } from '../grid-choice';

const AXES = ['X', 'Y', 'Z'] as const;
const TURNS = [
  { of: 'yaw', label: 'Heading' },
  { of: 'pitch', label: 'Pitch' },
  { of: 'roll', label: 'Roll' },
] as const;

const replaced = (values: Vec3, k: number, value: number): Vec3 =>
  values.map((old, n) => (n === k ? value : old)) as Vec3;

/** Position, turn and size of what rides no path: for good, or, where it is moved by hand, at this frame. */
export function PlaceFields({ rider }: { rider: Rider }) {
  const desk = useDeskStore();
  const shot = useDesk((state) => state.shot);
  const frame = useDesk((state) => (rider.transformKeys === null ? 0 : state.frame));
  const tool = useDesk((state) => state.tool);
  const carrier = shot.riders.find(({ id }) => id === rider.parent);
  // The ground is loaded after the shot: its height there is shown then.
  const assets = useDesk(
    useShallow(({ ground, hierarchies, physics }) => ({ ground, hierarchies, physics })),
  );
  const evaluated = useMemo(() => evaluateShot(shot, sceneAssets(assets)), [shot, assets]);
  const { translation, rotation } = useMemo(
    () => placementAt(evaluated, rider, frame),
    [evaluated, rider, frame],
  );
  const angles = anglesOf(rotation);
  const { scale } = rider.rest;
  const put = (placement: Placement, gesture?: string) =>
    attempt(
      desk,
      'Position',
      (now) => putRider(now, sceneAssets(desk.getState()), rider.id, desk.getState().frame, placement),
      gesture,
    );
  const size = (next: Vec3, gesture?: string) =>
    attempt(
      desk,
      'Scale',
      (now) => withRider(now, rider.id, (one) => ({ ...one, rest: { ...one.rest, scale: next } })),
      gesture,
    );
  return (
    <>
      <Hint>
        Set its position{carrier && ` on ${carrier.badge}`} by numbers, or drag the table under it on the
        stage.
        {rider.transformKeys !== null && ' A change sets a key at this frame.'}
      </Hint>
      <FieldGrid>
        {AXES.map((axis, k) => (
          <QuantityField
            key={axis}
            label={axis}
            kind="length"
            value={translation[k]}
            step={0.1}
            onChange={(value, gesture) =>
              put({ rotation, translation: replaced(translation, k, value) }, gesture)
            }
          />
        ))}
        {TURNS.map(({ of, label }) => (
          <QuantityField
            key={of}
            label={label}
            kind="angle"
            value={angles[of]}
            onChange={(value, gesture) =>
              put({ translation, rotation: offsetRotation({ ...angles, [of]: value }) }, gesture)
            }
          />
        ))}
        {AXES.map((axis, k) => (
          <QuantityField
            key={`scale ${axis}`}
            label={`Scale ${axis}`}
            kind="count"
            unit="×"
            value={scale[k]}
            min={0.001}
            max={1000}
            step={0.05}
            onChange={(value, gesture) => size(replaced(scale, k, value), gesture)}
          />
        ))}
      </FieldGrid>
      <SnapSettings />
      <Buttons>
        <Button
          isDisabled={tool.kind === 'putRider'}
          onPress={() => desk.getState().set({ tool: { kind: 'putRider', riderId: rider.id } })}
        >
          <MousePointerClick aria-hidden /> Position by click
        </Button>
      </Buttons>
    </>
  );
}

/** Snap targets while something is moved. */
function SnapSettings() {
  const drawing = useDesk((state) => state.drawing);
  const set = useDesk((state) => state.set);
  return (
    <>
      <GridChoice />
      <Tick isSelected={drawing.toPoints} onChange={(toPoints) => set({ drawing: { ...drawing, toPoints } })}>
        Snap to points and other things
      </Tick>
      <Tick isSelected={drawing.toGround} onChange={(toGround) => set({ drawing: { ...drawing, toGround } })}>
        Keep on the ground
      </Tick>
    </>
  );
}
