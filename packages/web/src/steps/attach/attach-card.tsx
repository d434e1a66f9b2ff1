import { compiledPathOf, PathError, speedOnce, type Rider } from '@fleet-rail/core';
import { Crosshair } from 'lucide-react';
import { Button, PrimaryButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { Tick } from '../../ui/tick';
import { useDesk, useDeskStore, type Attaching } from '../../state/desk-store';
import { acceptAttaching, changeAttachPlan } from '../../commands/attach-previews';

const ENDS = [
  { id: 'start', name: 'Start here' },
  { id: 'end', name: 'Other end' },
] as const;
const WAYS = [
  { id: 'along', name: 'Along' },
  { id: 'against', name: 'Against' },
] as const;
const TIMINGS = [
  { id: 'once', name: 'Once in the range' },
  { id: 'speed', name: 'At a speed' },
] as const;

/** How riders land on a path, shown on the stage before it is accepted. */
export function AttachCard({ attaching }: { attaching: Attaching }) {
  const desk = useDeskStore();
  const set = useDesk((state) => state.set);
  const { fps, range, loop } = useDesk((state) => state.shot);
  const riders = useDesk((state) => state.shot.riders).filter(({ id }) => attaching.riders.includes(id));
  const path = useDesk(({ shot }) => shot.paths.find(({ id }) => id === attaching.plan.path));
  const { plan } = attaching;
  const curve = path && compiledPathOf(path);
  if (!path || !curve || curve instanceof PathError) return null;
  const { length, closed } = curve;
  const change = (part: Partial<typeof plan>) => changeAttachPlan(desk, part);
  const once = speedOnce({ fps, range, loop }, plan, curve);
  const kept = plan.timing.kind === 'kept';
  const badges = riders.map(({ badge }) => badge).join(', ');
  const rides = riders.some(({ attachment }) => attachment !== null);
  const end = plan.start <= 1e-6 ? 'start' : plan.start >= length - 1e-6 ? 'end' : null;
  return (
    <>
      <Hint role="status">
        {kept
          ? `The pale figures show ${badges} on ${path.name} at the first, middle and last frame.`
          : `The pale figures show where ${badges} ${riders.length === 1 ? 'lands' : 'land'} on ${path.name}, midway, and the end.`}
      </Hint>
      {rides && (
        <Tick isSelected={kept} onChange={(on) => change({ timing: { kind: on ? 'kept' : 'once' } })}>
          Keep its pace
        </Tick>
      )}
      {!kept && (
        <>
          <Choice
            label="Starts at"
            options={ENDS}
            value={(end ?? '') as 'start'}
            onChange={(at) =>
              change(
                at === 'start'
                  ? { start: 0, way: 'along', keepsPlace: false }
                  : { start: length, way: 'against', keepsPlace: false },
              )
            }
          />
          <Choice label="Direction" options={WAYS} value={plan.way} onChange={(way) => change({ way })} />
          <Choice
            label="Pace"
            options={TIMINGS}
            value={plan.timing.kind === 'speed' ? 'speed' : 'once'}
            onChange={(kind) =>
              change({
                timing:
                  kind === 'speed' ? { kind, speed: Math.max(0.1, Math.round(10 * once) / 10) } : { kind },
              })
            }
          />
          <FieldGrid>
            <QuantityField
              label="Starts at"
              kind="length"
              value={plan.start}
              min={0}
              max={length}
              step={0.5}
              isDisabled={plan.keepsPlace}
              onChange={(start) => change({ start })}
            />
            <QuantityField
              label="of the path"
              kind="count"
              unit="%"
              value={(100 * plan.start) / length}
              min={0}
              max={100}
              digits={1}
              isDisabled={plan.keepsPlace}
              onChange={(percent) => change({ start: Number(((percent / 100) * length).toFixed(6)) })}
            />
            <QuantityField
              label="From frame"
              kind="frame"
              fps={fps}
              value={plan.startFrame}
              onChange={(startFrame) => change({ startFrame })}
            />
            {plan.timing.kind === 'speed' && (
              <QuantityField
                label="Speed"
                kind="speed"
                value={plan.timing.speed}
                min={0.001}
                step={0.5}
                onChange={(speed) => change({ timing: { kind: 'speed', speed } })}
              />
            )}
            {riders.length > 1 && (
              <QuantityField
                label="Spacing"
                kind="length"
                value={plan.spacing}
                min={0}
                step={0.5}
                onChange={(spacing) => change({ spacing })}
              />
            )}
          </FieldGrid>
          {plan.timing.kind === 'once' && <SpeedHint riders={riders} speed={once} />}
          <Buttons>
            <Button
              isDisabled={plan.keepsPlace}
              onPress={() => set({ tool: { kind: 'pickStart' }, pathId: path.id })}
            >
              <Crosshair aria-hidden /> Click the start
            </Button>
          </Buttons>
          {!closed && plan.way === 'along' && plan.start >= length - 1e-6 && (
            <Hint role="alert">It would start at the end. Choose “Against” to ride the other way.</Hint>
          )}
        </>
      )}
      <Tick isSelected={plan.keepsPlace} onChange={(keepsPlace) => change({ keepsPlace })}>
        Keep its position (sets the offset)
      </Tick>
      <Buttons>
        <PrimaryButton onPress={() => acceptAttaching(desk)} autoFocus>
          Attach here
        </PrimaryButton>
        <Button onPress={() => set({ attaching: null })}>Cancel</Button>
      </Buttons>
    </>
  );
}

/** Metres a second that hardly any of a kind goes. */
const FASTEST: Readonly<Record<Rider['kind'], number>> = {
  vehicle: 90,
  camera: 90,
  character: 12,
  creature: 35,
  prop: 90,
  carrier: 90,
  light: Infinity,
  emitter: Infinity,
};

/** Speed of a ride that takes the whole range; shown as a warning if it is implausible. */
function SpeedHint({ riders, speed }: { riders: readonly Rider[]; speed: number }) {
  const fast = riders.some(({ kind }) => speed > FASTEST[kind]);
  const much = `${showNumber(speed, 1)} m/s (${showNumber(speed * 3.6, 0)} km/h)`;
  return fast ? (
    <Hint role="alert">That is {much}: set a speed, or make the range longer.</Hint>
  ) : (
    <Hint>That is {much}.</Hint>
  );
}
