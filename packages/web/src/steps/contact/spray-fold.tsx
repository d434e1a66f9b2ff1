import {
  Burst,
  Emitter,
  LIMITS,
  READY_SPRAYS,
  defaultsOf,
  everyInGlb,
  mostAlive,
  type Rider,
} from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { useMemo } from 'react';
import styled from 'styled-components';
import { useModels, type KeptModel } from '../../api/models';
import { changeRider, withModel } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { ColorField } from '../../ui/color-field';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { QuantityFields, type NumberOf } from '../../ui/quantity-fields';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 70px 70px auto;
  align-items: end;
  gap: 8px;
`;

const FLIGHT: readonly NumberOf<Emitter>[] = [
  { of: 'life', label: 'Life', kind: 'time', min: 0.001, max: 1e4, step: 0.1 },
  { of: 'speed', label: 'Launch speed', kind: 'speed', min: 0, max: 1e4, step: 0.1 },
  { of: 'spread', label: 'Spread', kind: 'angle', min: 0, max: 180, step: 5 },
  { of: 'gravity', label: 'Gravity', kind: 'count', unit: 'g', min: -100, max: 100, step: 0.05 },
  { of: 'drag', label: 'Drag', kind: 'count', unit: '/s', min: 0, max: 1e3, step: 0.1 },
  { of: 'inherit', label: 'Inherited speed ×', kind: 'count', min: -10, max: 10, step: 0.05 },
];

const FROM: readonly { id: Emitter['from']; name: string }[] = [
  { id: 'origin', name: 'Its origin' },
  { id: 'wheels', name: 'Its wheels' },
  { id: 'part', name: 'A part' },
];
const WHEN: readonly { id: Emitter['when']; name: string }[] = [
  { id: 'always', name: 'Always' },
  { id: 'moving', name: 'While it moves' },
  { id: 'sliding', name: 'While it slides' },
];

/** Particles of a rider: dust, sparks, leaves, water. */
export function SprayFold({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const edit = useDesk((state) => state.edit);
  const { emitter } = rider;
  const put = (label: string, next: Emitter | null, gesture?: string) =>
    edit(
      label,
      changeRider(rider.id, (before) => ({ ...before, emitter: next })),
      gesture,
    );
  const from: Emitter['from'] = rider.wheels.length > 0 ? 'wheels' : 'origin';
  return (
    <Fold title={emitter ? 'Spray (on)' : 'Spray'} isOpen={emitter !== null}>
      <Hint>Dust, sparks, leaves, water: begin with the closest preset.</Hint>
      <Buttons role="group" aria-label="Sprays">
        {READY_SPRAYS.map(({ name, parts }) => (
          <Button
            key={name}
            onPress={() => put(name, { ...(emitter ?? { ...defaultsOf(Emitter), from }), ...parts })}
          >
            {name}
          </Button>
        ))}
        {emitter && <Button onPress={() => put('No spray', null)}>Nothing</Button>}
      </Buttons>
      {emitter && (
        <Settings
          rider={rider}
          emitter={emitter}
          nodes={[...new Set(model?.facts.nodes ?? [])].filter((name) => name !== '')}
          onChange={(part, gesture) => put('Spray', { ...emitter, ...part }, gesture)}
        />
      )}
    </Fold>
  );
}

function Settings(props: {
  rider: Rider;
  emitter: Emitter;
  nodes: readonly string[];
  onChange: (part: Partial<Emitter>, gesture?: string) => void;
}) {
  const { rider, emitter, nodes, onChange } = props;
  const edit = useDesk((state) => state.edit);
  const inShot = useDesk(({ shot }) => shot.models);
  const models = useModels().data ?? [];
  const worn = inShot.find(({ id }) => id === emitter.model)?.source.asset ?? LOOK_ALONE;
  return (
    <>
      <FieldPair>
        <Select
          label="From"
          options={FROM.filter(
            ({ id }) =>
              id === emitter.from || id === 'origin' || (id === 'wheels' ? rider.wheels : nodes).length > 0,
          )}
          value={emitter.from}
          onChange={(where) =>
            onChange({ from: where, node: where === 'part' ? (emitter.node ?? nodes[0]) : emitter.node })
          }
        />
        <Select label="When" options={WHEN} value={emitter.when} onChange={(when) => onChange({ when })} />
        {emitter.from === 'part' && (
          <Select
            label="Part that sprays"
            options={nodes.map((name) => ({ id: name, name }))}
            value={emitter.node ?? ''}
            onChange={(node) => onChange({ node })}
          />
        )}
      </FieldPair>
      <FieldPair>
        <QuantityField
          label="Rate"
          kind="count"
          unit={emitter.by === 'time' ? '/s' : '/m'}
          min={0}
          max={1e5}
          step={1}
          value={emitter.rate}
          onChange={(rate, gesture) => onChange({ rate }, gesture)}
        />
        <Select
          label="Driven by"
          options={[
            { id: 'time', name: 'Time' },
            { id: 'distance', name: 'Distance' },
          ]}
          value={emitter.by}
          onChange={(by) => onChange({ by })}
        />
      </FieldPair>
      <FieldGrid>
        <QuantityFields fields={FLIGHT} value={emitter} onChange={onChange} />
        {(['Start size', 'End size'] as const).map((label, k) => (
          <QuantityField
            key={label}
            label={label}
            kind="length"
            min={0}
            max={1e4}
            step={0.02}
            value={emitter.size[k]}
            onChange={(value, gesture) =>
              onChange({ size: k === 0 ? [value, emitter.size[1]] : [emitter.size[0], value] }, gesture)
            }
          />
        ))}
        <QuantityField
          label="Seed"
          kind="count"
          whole
          min={0}
          max={2 ** 31 - 1}
          value={emitter.seed}
          onChange={(seed, gesture) => onChange({ seed }, gesture)}
        />
      </FieldGrid>
      <Select
        label="Shape"
        options={[
          { id: 'quads', name: 'Squares' },
          { id: 'points', name: 'Points' },
          ...models.map(({ id, name }) => ({ id: `model ${id}`, name })),
        ]}
        value={worn === LOOK_ALONE ? emitter.look : `model ${worn}`}
        onChange={(look) => {
          if (look === 'quads' || look === 'points') onChange({ look, model: null });
          const model = models.find(({ id }) => look === `model ${id}`);
          if (model)
            edit('Spray', (shot) => {
              const dressed = withModel(shot, model);
              return changeRider(rider.id, (before) => ({
                ...before,
                emitter: before.emitter && { ...before.emitter, model: dressed.modelId },
              }))(dressed.shot);
            });
        }}
      />
      {emitter.model === null && (
        <>
          <ColorField label="Colour" value={emitter.color} onChange={(color) => onChange({ color })} />
          <Tick
            isSelected={emitter.fade !== null}
            onChange={(on) => onChange({ fade: on ? emitter.color : null })}
          >
            Change colour
          </Tick>
          {emitter.fade !== null && (
            <ColorField label="End colour" value={emitter.fade} onChange={(fade) => onChange({ fade })} />
          )}
        </>
      )}
      <Bursts emitter={emitter} onChange={onChange} />
      <Count rider={rider} />
    </>
  );
}

const LOOK_ALONE = ' none';
const AT_FRAME = ' frame';

function Bursts({
  emitter,
  onChange,
}: {
  emitter: Emitter;
  onChange: (part: Partial<Emitter>, by?: string) => void;
}) {
  const cues = useDesk(({ shot }) => shot.cues);
  const frame = useDesk((state) => state.frame);
  const put = (i: number, part: Partial<Burst>, gesture?: string) =>
    onChange({ bursts: emitter.bursts.map((one, k) => (k === i ? { ...one, ...part } : one)) }, gesture);
  return (
    <>
      {emitter.bursts.map((burst, i) => (
        <Line key={i} role="group" aria-label={`Burst ${i + 1}`}>
          <Select
            label="Bursts"
            options={[{ id: AT_FRAME, name: 'At a frame' }, ...cues.map(({ id, name }) => ({ id, name }))]}
            value={burst.cue ?? AT_FRAME}
            onChange={(cue) => put(i, { cue: cue === AT_FRAME ? null : cue })}
          />
          {burst.cue === null ? (
            <QuantityField
              label="Frame"
              kind="count"
              step={1}
              value={burst.frame}
              onChange={(at, gesture) => put(i, { frame: at }, gesture)}
            />
          ) : (
            <span />
          )}
          <QuantityField
            label="Count"
            kind="count"
            whole
            min={1}
            max={LIMITS.particles}
            value={burst.count}
            onChange={(count, gesture) => put(i, { count }, gesture)}
          />
          <IconButton
            label={`Delete burst ${i + 1}`}
            onPress={() => onChange({ bursts: emitter.bursts.filter((_, k) => k !== i) })}
          >
            <Trash2 aria-hidden />
          </IconButton>
        </Line>
      ))}
      <Buttons>
        <Button onPress={() => onChange({ bursts: [...emitter.bursts, { ...defaultsOf(Burst), frame }] })}>
          <Plus aria-hidden /> Burst at this frame
        </Button>
      </Buttons>
    </>
  );
}

/** Number of particles, and of those alive together: the load of a file. */
function Count({ rider }: { rider: Rider }) {
  const spray = useDesk(({ evaluation }) => evaluation?.riders.get(rider.id)?.spray ?? null);
  const fps = useDesk(({ shot }) => shot.fps);
  const most = useMemo(() => (spray ? mostAlive(spray) : 0), [spray]);
  const every = useMemo(() => (spray ? everyInGlb(spray, fps) : 1), [spray, fps]);
  if (!spray) return null;
  return (
    <Hint role="status">
      {spray.count} particles, {most} at once.
      {every > 1 && ` A GLB has every ${ordinal(every)} of them.`}
      {spray.limited && ` No more than ${LIMITS.particles} of one rider are sprayed.`}
    </Hint>
  );
}

/** "2nd", "3rd", "4th". */
function ordinal(n: number): string {
  const teens = n % 100 > 10 && n % 100 < 14;
  return `${n}${teens ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th')}`;
}
