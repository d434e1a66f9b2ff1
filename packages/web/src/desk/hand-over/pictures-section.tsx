import { POSE, frameCount, type Rider } from '@fleet-rail/core';
import { Camera, X } from 'lucide-react';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { keep } from '../../api/download';
import { sentenceOf } from '../../api/request';
import { burnIn, type BurnedText } from '../../pictures/burn-in';
import {
  fourDigits,
  plannedPictures,
  type BurnIn,
  type PictureFile,
  type PictureWish,
} from '../../pictures/picture-plan';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Fold } from '../../ui/fold';
import { notify } from '../../ui/notices';
import { Buttons, FieldGrid, FieldPair, Hint, Section, SectionTitle } from '../../ui/panel';
import { Progress } from '../../ui/progress';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk, useDeskStore, type DeskState } from '../desk-store';
import { frameLabel } from '../diagram/diagram-scales';
import { riderPose } from '../rider-pose';
import { shownCuts } from '../stage/looked-through';

const Preview = styled.img`
  display: block;
  width: 100%;
  max-height: 220px;
  object-fit: contain;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
`;

const FILES: readonly { id: PictureFile; name: string }[] = [
  { id: 'png', name: 'PNG' },
  { id: 'webm', name: 'WebM' },
  { id: 'mp4', name: 'MP4' },
];
const SIZES = ['1280 × 720', '1920 × 1080', '3840 × 2160', '1080 × 1080', '1080 × 1920'];
const OWN_SIZE = 'Another size';
const TIMES = [1, 2, 3, 4].map((times) => ({ id: `${times}`, name: `${times} ×` }));
const BURNED: readonly { of: keyof BurnIn; name: string }[] = [
  { of: 'frame', name: 'Frame' },
  { of: 'timecode', name: 'Timecode' },
  { of: 'name', name: 'Shot’s name' },
  { of: 'board', name: 'Selected rider’s figures' },
  { of: 'safe', name: 'Safe area' },
];

const FIRST: PictureWish = {
  frames: 'one',
  every: 1,
  eye: 'view',
  width: 1280,
  height: 720,
  times: 1,
  file: 'png',
  quality: 0.7,
  rounds: 1,
  burnIn: { frame: false, timecode: false, name: false, board: false, safe: false },
  helpers: false,
  clear: false,
};

/** A file under way. */
interface Making {
  readonly done: number;
  readonly of: number;
  /** Milliseconds since it began. */
  readonly gone: number;
  readonly picture: string | null;
}

/** Pictures and films of the shot, drawn on this page. */
export function PicturesSection() {
  const desk = useDeskStore();
  const shot = useDesk((state) => state.shot);
  const ready = useDesk(
    (state) => state.photograph !== null && state.evaluation !== null && state.evaluation.now === null,
  );
  const [wish, setWish] = useState(FIRST);
  const [making, setMaking] = useState<Making | null>(null);
  const stop = useRef<AbortController | null>(null);
  const change = (part: Partial<PictureWish>) => setWish({ ...wish, ...part });
  const cameras = shot.riders.filter(({ camera }) => camera !== null);
  const film = wish.file !== 'png';
  const size = `${wish.width} × ${wish.height}`;
  const eye = typeof wish.eye === 'string' ? wish.eye : `rider ${wish.eye.rider}`;
  const make = async () => {
    const state = desk.getState();
    const { photograph } = state;
    if (photograph === null) return;
    const ids = cameras.map(({ id }) => id);
    const pictures = plannedPictures(wish, state.frame, shot.range, shownCuts(state), ids);
    const control = new AbortController();
    stop.current = control;
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [wish.width, wish.height];
    const target = canvas.getContext('2d') as CanvasRenderingContext2D;
    target.imageSmoothingQuality = 'high';
    const begun = performance.now();
    setMaking({ done: 0, of: pictures.length, gone: 0, picture: null });
    try {
      const { makeFile } = await import('../../pictures/film');
      const { name, content } = await makeFile({
        wish,
        pictures,
        name: shot.name,
        fps: shot.fps,
        canvas,
        signal: control.signal,
        draw({ frame, through }) {
          if (desk.getState().shot !== state.shot)
            throw new Error('The shot was changed while it was drawn; make it again.');
          const times = { width: wish.width * wish.times, height: wish.height * wish.times };
          const how = { helpers: wish.helpers, clear: wish.clear && !film };
          const drawn = photograph(frame, through, times, how);
          if (drawn === null) throw new Error('The shot is still being evaluated, or its camera is gone.');
          target.clearRect(0, 0, wish.width, wish.height);
          target.drawImage(drawn, 0, 0, wish.width, wish.height);
          burnIn(target, wish, wish.burnIn, textAt(desk.getState(), frame));
        },
        told(done, picture) {
          const shownNow = done === 1 || done === pictures.length || done % 12 === 0;
          const gone = performance.now() - begun;
          setMaking((before) => ({
            done,
            of: pictures.length,
            gone,
            picture: shownNow ? picture.toDataURL('image/jpeg', 0.7) : (before?.picture ?? null),
          }));
        },
      });
      keep(name, content);
      notify('done', `${name}, ${(content.size / 1e6).toFixed(1)} MB.`);
    } catch (error) {
      notify(control.signal.aborted ? 'done' : 'error', sentenceOf(error));
    } finally {
      stop.current = null;
      setMaking((before) => before && { ...before, done: before.of });
    }
  };
  const busy = making !== null && making.done < making.of;
  const left =
    making && making.done > 0 ? ((making.of - making.done) * making.gone) / making.done / 1e3 : null;
  return (
    <Section aria-label="Pictures and video">
      <SectionTitle>Pictures and video</SectionTitle>
      <Choice label="As" options={FILES} value={wish.file} onChange={(file) => change({ file })} />
      {!film && (
        <Choice
          label="Frames"
          options={[
            { id: 'one', name: 'This frame' },
            { id: 'range', name: 'The range' },
          ]}
          value={wish.frames}
          onChange={(frames) => change({ frames })}
        />
      )}
      <FieldPair>
        <Select
          label="Seen through"
          options={[
            { id: 'view', name: 'This view' },
            ...(cameras.length > 0 ? [{ id: 'cuts', name: 'The cuts' }] : []),
            ...cameras.map(({ id, badge, name }) => ({ id: `rider ${id}`, name: `${badge} ${name}` })),
          ]}
          value={eye}
          onChange={(next) =>
            change({
              eye: next === 'view' || next === 'cuts' ? next : { rider: next.slice('rider '.length) },
            })
          }
        />
        <Select
          label="Size"
          options={[...SIZES, OWN_SIZE].map((id) => ({ id, name: id }))}
          value={SIZES.includes(size) ? size : OWN_SIZE}
          onChange={(next) => {
            const [width, height] =
              next === OWN_SIZE ? [wish.width + 2, wish.height] : next.split(' × ').map(Number);
            change({ width, height });
          }}
        />
      </FieldPair>
      {!SIZES.includes(size) && (
        <FieldPair>
          {(['width', 'height'] as const).map((of) => (
            <QuantityField
              key={of}
              label={of === 'width' ? 'Width' : 'Height'}
              kind="count"
              unit="px"
              whole
              min={16}
              max={8192}
              step={2}
              value={wish[of]}
              onChange={(value) => change({ [of]: film ? value + (value % 2) : value })}
            />
          ))}
        </FieldPair>
      )}
      <FieldGrid>
        {(film || wish.frames === 'range') && (
          <QuantityField
            label="Every"
            kind="frame"
            whole
            min={1}
            max={frameCount(shot)}
            value={wish.every}
            onChange={(every) => change({ every })}
          />
        )}
        <Select
          label="Drawn at"
          options={TIMES}
          value={`${wish.times}`}
          onChange={(times) => change({ times: Number(times) })}
        />
        {film && (
          <QuantityField
            label="Quality"
            kind="count"
            min={0}
            max={1}
            step={0.05}
            value={wish.quality}
            onChange={(quality) => change({ quality })}
          />
        )}
        {film && shot.loop && (
          <QuantityField
            label="Goes round"
            kind="count"
            unit="times"
            whole
            min={1}
            max={100}
            value={wish.rounds}
            onChange={(rounds) => change({ rounds })}
          />
        )}
      </FieldGrid>
      <Tick isSelected={wish.helpers} onChange={(helpers) => change({ helpers })}>
        With ribbons, grid and chalk
      </Tick>
      {!film && (
        <Tick isSelected={wish.clear} onChange={(clear) => change({ clear })}>
          Without a background
        </Tick>
      )}
      <Fold title="Burned in">
        {BURNED.map(({ of, name }) => (
          <Tick
            key={of}
            isSelected={wish.burnIn[of]}
            onChange={(on) => change({ burnIn: { ...wish.burnIn, [of]: on } })}
          >
            {name}
          </Tick>
        ))}
      </Fold>
      <Buttons>
        <Button isDisabled={!ready || busy} onPress={() => void make()}>
          <Camera aria-hidden />{' '}
          {film ? 'Make the film' : wish.frames === 'one' ? 'Make the picture' : 'Make the pictures'}
        </Button>
        {busy && (
          <Button onPress={() => stop.current?.abort()}>
            <X aria-hidden /> Cancel the pictures
          </Button>
        )}
      </Buttons>
      {busy && making && (
        <>
          <Progress label="Pictures" part={making.done / Math.max(1, making.of)} />
          <Hint role="status">
            Picture {making.done} of {making.of}
            {left === null
              ? ''
              : `, about ${left < 90 ? `${Math.ceil(left)} s` : `${Math.ceil(left / 60)} min`} more`}
            .
          </Hint>
        </>
      )}
      {making?.picture && <Preview src={making.picture} alt="The last picture that was made" />}
    </Section>
  );
}

/** What a picture of a frame can have burned in. */
function textAt(state: DeskState, frame: number): BurnedText {
  const { shot, riderId } = state;
  const rider = shot.riders.find(({ id }) => id === riderId);
  return {
    frame: fourDigits(frame),
    timecode: frameLabel(frame, 'timecode', shot),
    name: shot.name,
    board: rider ? boardOf(state, rider, frame) : [],
  };
}

function boardOf({ evaluation }: DeskState, rider: Rider, frame: number): string[] {
  const pose = riderPose({ evaluation, frame }, rider);
  const title = `${rider.badge} ${rider.name}`;
  if (pose === null) return [title];
  return [title, `${pose[POSE.distance].toFixed(2)} m`, `${pose[POSE.speed].toFixed(2)} m/s`];
}
