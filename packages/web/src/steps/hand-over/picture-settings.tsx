import {
  MOST_EYES,
  frameCount,
  isFilm,
  isSheet,
  type BurnIn,
  type PictureFile,
  type PictureWish,
  type Rider,
} from '@fleet-rail/core';
import { Choice } from '../../ui/choice';
import { Fold } from '../../ui/fold';
import { FieldGrid, FieldPair } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';

const FILES: readonly { id: PictureFile; name: string }[] = [
  { id: 'png', name: 'PNG' },
  { id: 'webm', name: 'WebM film' },
  { id: 'av1', name: 'WebM film, AV1' },
  { id: 'mp4', name: 'MP4 film' },
  { id: 'gif', name: 'GIF' },
  { id: 'sheet', name: 'Sheet, PNG' },
  { id: 'pdf', name: 'Sheet, PDF' },
];
const SIZES = ['640 × 360', '1280 × 720', '1920 × 1080', '3840 × 2160', '1080 × 1080', '1080 × 1920'];
const OWN_SIZE = 'Another size';
const TIMES = [1, 2, 3, 4].map((times) => ({ id: `${times}`, name: `${times} ×` }));
const BURNED: readonly { of: keyof BurnIn; name: string }[] = [
  { of: 'frame', name: 'Frame' },
  { of: 'timecode', name: 'Timecode' },
  { of: 'name', name: 'Shot’s name' },
  { of: 'board', name: 'Selected rider’s figures' },
  { of: 'safe', name: 'Safe area' },
];
/** First values of a GIF and a sheet: small enough to send, few enough to look at. */
const BEGINS: Partial<Record<PictureFile, Partial<PictureWish>>> = {
  gif: { width: 640, height: 360 },
  sheet: { frames: 'cuts' },
  pdf: { frames: 'cuts' },
  png: { frames: 'one' },
};

interface Settings {
  readonly wish: PictureWish;
  readonly onChange: (wish: PictureWish) => void;
}

/** Settings of pictures. */
export function PictureSettings({ wish, onChange }: Settings) {
  const shot = useDesk((state) => state.shot);
  const change = (part: Partial<PictureWish>) => onChange({ ...wish, ...part });
  const film = isFilm(wish.file);
  const sheet = isSheet(wish.file);
  const spread = film || wish.frames === 'range';
  return (
    <>
      <FieldPair>
        <Select
          label="Format"
          options={FILES}
          value={wish.file}
          onChange={(file) => change({ file, ...BEGINS[file] })}
        />
        <SizeSelect wish={wish} change={change} />
      </FieldPair>
      {!film && (
        <Choice
          label="Frames"
          options={
            sheet
              ? [
                  { id: 'cuts', name: 'At each cut' },
                  { id: 'range', name: 'Even steps' },
                ]
              : [
                  { id: 'one', name: 'This frame' },
                  { id: 'range', name: 'The range' },
                ]
          }
          value={wish.frames}
          onChange={(frames) => {
            // A page holds a few dozen; more are asked for on purpose.
            const every = sheet ? Math.max(1, Math.ceil(frameCount(shot) / 12)) : wish.every;
            change({ frames: frames as PictureWish['frames'], every });
          }}
        />
      )}
      <OwnSize wish={wish} change={change} even={film} />
      <SeenThrough
        wish={wish}
        change={change}
        cameras={shot.riders.filter(({ camera }) => camera !== null)}
      />
      <FieldGrid>
        {spread && (
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
          label="Oversampling"
          options={TIMES}
          value={`${wish.times}`}
          onChange={(times) => change({ times: Number(times) })}
        />
        {film && wish.file !== 'gif' && (
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
        {film && shot.loop && wish.file !== 'gif' && (
          <QuantityField
            label="Loops"
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
        With ribbons, badges, grid and chalk
      </Tick>
      {wish.file === 'png' && (
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
    </>
  );
}

interface Part {
  readonly wish: PictureWish;
  readonly change: (part: Partial<PictureWish>) => void;
}

const sizeOf = ({ width, height }: PictureWish) => `${width} × ${height}`;

function SizeSelect({ wish, change }: Part) {
  return (
    <Select
      label="Size"
      options={[...SIZES, OWN_SIZE].map((id) => ({ id, name: id }))}
      value={SIZES.includes(sizeOf(wish)) ? sizeOf(wish) : OWN_SIZE}
      onChange={(next) => {
        const [width, height] =
          next === OWN_SIZE ? [wish.width + 2, wish.height] : next.split(' × ').map(Number);
        change({ width, height });
      }}
    />
  );
}

/** @param even a film's sides are even numbers */
function OwnSize({ wish, change, even }: Part & { readonly even: boolean }) {
  if (SIZES.includes(sizeOf(wish))) return null;
  return (
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
          onChange={(value) => change({ [of]: even ? value + (value % 2) : value })}
        />
      ))}
    </FieldPair>
  );
}

/** The view, the cuts, a camera, or several side by side. */
function SeenThrough({ wish, change, cameras }: Part & { readonly cameras: readonly Rider[] }) {
  const { eye } = wish;
  const chosen = typeof eye === 'object' ? eye.riders : [];
  const several =
    typeof eye === 'object' && (chosen.length !== 1 || cameras.every(({ id }) => id !== chosen[0]));
  const value = typeof eye === 'string' ? eye : several ? 'several' : `rider ${chosen[0]}`;
  return (
    <>
      <Select
        label="Camera"
        options={[
          { id: 'view', name: 'This view' },
          ...(cameras.length > 0 ? [{ id: 'cuts', name: 'The cuts' }] : []),
          ...cameras.map(({ id, badge, name }) => ({ id: `rider ${id}`, name: `${badge} ${name}` })),
          ...(cameras.length > 1 ? [{ id: 'several', name: 'Several side by side' }] : []),
        ]}
        value={value}
        onChange={(next) => {
          if (next === 'view' || next === 'cuts') change({ eye: next });
          else if (next === 'several')
            change({ eye: { riders: cameras.slice(0, MOST_EYES).map(({ id }) => id) } });
          else change({ eye: { riders: [next.slice('rider '.length)] } });
        }}
      />
      {several &&
        cameras.map(({ id, badge, name }) => {
          const on = chosen.includes(id);
          return (
            <Tick
              key={id}
              isSelected={on}
              isDisabled={!on && chosen.length >= MOST_EYES}
              onChange={(next) =>
                change({
                  eye: { riders: next ? [...chosen, id] : chosen.filter((other) => other !== id) },
                })
              }
            >
              {badge} {name}
            </Tick>
          );
        })}
    </>
  );
}
