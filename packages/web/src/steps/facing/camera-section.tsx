import { Camera, DEGREES, defaultsOf, fieldOfView, focalAt, type Rider } from '@fleet-rail/core';
import { LayoutGrid, Scissors, Trash2, Video } from 'lucide-react';
import styled from 'styled-components';
import { changeRider, cutTo, removeCut } from '../../edits/rider-edits';
import { Badge } from '../../ui/badge';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../../state/desk-store';
import { ShakeFold } from '../shared/shake-fold';
import { FramingPicture } from './framing-picture';
import { KeyList, withCount } from './key-list';
import { TargetFold } from './target-fold';

const CutLine = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  & > span:nth-child(2) {
    flex: 1;
  }
`;

/** Lens, picture and framing of a camera rider; and the cuts between cameras. */
export function CameraSection({ rider }: { rider: Rider }) {
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const view = useDesk((state) => state.view);
  const through = useDesk((state) => state.through);
  const frame = useDesk((state) => state.frame);
  const shot = useDesk((state) => state.shot);
  const beside = useDesk((state) => state.beside);
  const cameras = shot.riders.filter((one) => one.camera !== null).length;
  const { camera } = rider;
  if (camera === null) {
    return (
      <Section>
        <Buttons>
          <Button
            onPress={() =>
              edit(
                'Make it a camera',
                changeRider(rider.id, (before) => ({ ...before, camera: defaultsOf(Camera) })),
              )
            }
          >
            <Video aria-hidden /> Let {rider.badge} carry a camera
          </Button>
        </Buttons>
      </Section>
    );
  }
  const change = (part: Partial<Camera>, gesture?: string) =>
    edit(
      'Camera',
      changeRider(rider.id, (before) => ({ ...before, camera: { ...camera, ...part } })),
      gesture,
    );
  const focal = focalAt(camera, frame);
  const looking = view === 'through' && through === rider.id;
  return (
    <Section aria-label="Camera">
      <SectionTitle>Camera</SectionTitle>
      <Buttons>
        <Button onPress={() => set(looking ? { view: 'free' } : { view: 'through', through: rider.id })}>
          <Video aria-hidden /> {looking ? 'Leave the camera view' : `Look through ${rider.badge}`}
        </Button>
        <Button onPress={() => edit('Cut', cutTo(rider.id, Math.round(frame)))}>
          <Scissors aria-hidden /> Cut to {rider.badge} here
        </Button>
        {cameras > 1 && (
          <Button onPress={() => set({ beside: beside === 'cameras' ? null : 'cameras' })}>
            <LayoutGrid aria-hidden /> Cameras side by side
          </Button>
        )}
      </Buttons>
      <FieldGrid>
        <QuantityField
          label="Focal length"
          kind="count"
          unit="mm"
          value={camera.keys.length > 0 ? focal : camera.focal}
          min={1}
          max={10_000}
          digits={1}
          isDisabled={camera.keys.length > 0}
          onChange={(value, gesture) => change({ focal: value }, gesture)}
        />
        <QuantityField
          label="Sensor width"
          kind="count"
          unit="mm"
          value={camera.sensor}
          min={0.1}
          max={1_000}
          step={0.5}
          onChange={(sensor, gesture) => change({ sensor }, gesture)}
        />
        <QuantityField
          label="Aspect ratio"
          kind="count"
          value={camera.aspect}
          min={0.1}
          max={10}
          step={0.01}
          onChange={(aspect, gesture) => change({ aspect }, gesture)}
        />
        <QuantityField
          label="Near"
          kind="length"
          value={camera.near}
          min={1e-4}
          max={camera.far * 0.999}
          step={0.05}
          onChange={(near, gesture) => change({ near }, gesture)}
        />
        <QuantityField
          label="Far"
          kind="length"
          value={camera.far}
          min={camera.near * 1.001}
          max={1e7}
          step={10}
          onChange={(far, gesture) => change({ far }, gesture)}
        />
      </FieldGrid>
      <Hint>Vertical field of view {showNumber(fieldOfView(camera, focal) * DEGREES, 1)}°</Hint>
      <FramingPicture
        aspect={camera.aspect}
        framing={camera.framing}
        onChange={(framing, gesture) => change({ framing }, gesture)}
      />
      <FieldGrid>
        <QuantityField
          label="Target across"
          kind="count"
          value={camera.framing[0]}
          min={-1}
          max={1}
          step={0.05}
          onChange={(x, gesture) => change({ framing: [x, camera.framing[1]] }, gesture)}
        />
        <QuantityField
          label="Target up"
          kind="count"
          value={camera.framing[1]}
          min={-1}
          max={1}
          step={0.05}
          onChange={(y, gesture) => change({ framing: [camera.framing[0], y] }, gesture)}
        />
      </FieldGrid>
      <Hint>Position of the target in the picture: 0 middle, 1 edge.</Hint>
      <Fold title={withCount('Zoom', camera.keys)}>
        <KeyList rider={rider} channel="focal" name="focal length" />
      </Fold>
      <TargetFold rider={rider} camera={camera} />
      <ShakeFold rider={rider} />
      {shot.cuts.length > 0 && (
        <Fold title={`Cuts (${shot.cuts.length})`} isOpen>
          <Buttons>
            <Button onPress={() => set({ beside: beside === 'cuts' ? null : 'cuts' })}>
              <LayoutGrid aria-hidden /> {beside === 'cuts' ? 'Back to the stage' : 'Pictures of the cuts'}
            </Button>
          </Buttons>
          {shot.cuts.map((cut) => {
            const shown = shot.riders.find(({ id }) => id === cut.camera);
            return (
              <CutLine key={cut.frame}>
                <Badge $color={shown?.color ?? 0}>{shown?.badge}</Badge>
                <span>from frame {showNumber(cut.frame, 2)}</span>
                <IconButton
                  label={`Delete the cut at frame ${showNumber(cut.frame, 2)}`}
                  onPress={() => edit('Delete cut', removeCut(cut.frame))}
                >
                  <Trash2 aria-hidden />
                </IconButton>
              </CutLine>
            );
          })}
        </Fold>
      )}
    </Section>
  );
}
