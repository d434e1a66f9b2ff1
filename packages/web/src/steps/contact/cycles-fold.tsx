import type { Cycle } from '@fleet-rail/core';
import {
  AXES,
  CYCLE_SHAPES,
  cycleBy,
  pairedName,
  proposeCycle,
  type Axis,
  type CycleShape,
  type Rider,
} from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import type { KeptModel } from '../../api/models';
import { changeRider } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, FieldPair, Hint } from '../../ui/panel';
import type { QuantityKind } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { QuantityFields, type NumberOf } from '../../ui/quantity-fields';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { QuickHint } from './quick-hint';
import { speedNow } from './ride-speeds';
import { WheelCard, WheelHead } from './wheel-rows';

const KINDS: readonly { id: Cycle['kind']; name: string }[] = [
  { id: 'turn', name: 'Rotation' },
  { id: 'slide', name: 'Translation' },
  { id: 'morph', name: 'Morph' },
];
const SHAPES: Record<CycleShape, string> = {
  sine: 'Back and forth',
  pulse: 'Pulse',
  noise: 'Noise',
  steady: 'Continuous',
};
const BY: readonly { id: Cycle['by']; name: string }[] = [
  { id: 'time', name: 'Time' },
  { id: 'distance', name: 'Distance' },
];
/** Unit of an amplitude. */
const MEASURES: Record<Cycle['kind'], { kind: QuantityKind; step: number }> = {
  turn: { kind: 'angle', step: 1 },
  slide: { kind: 'length', step: 0.01 },
  morph: { kind: 'count', step: 0.05 },
};

const ALL_CYCLES: readonly NumberOf<Cycle>[] = [
  { of: 'rampIn', label: 'Fade in', kind: 'time', min: 0, step: 0.1 },
  { of: 'rampOut', label: 'Fade out', kind: 'time', min: 0, step: 0.1 },
  { of: 'phase', label: 'Begins at', kind: 'count', step: 0.05 },
  { of: 'seed', label: 'Seed', kind: 'count', whole: true, min: 0, max: 2 ** 31 - 1 },
];

/** Motions that repeat by themselves: wing beats, rotors, swaying, changes of shape. */
export function CyclesFold({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const { cycles } = rider;
  const nodes = [...new Set(model?.facts.nodes ?? [])].filter((name) => name !== '');
  const change = (next: Cycle[], gesture?: string) =>
    edit(
      'Cycles',
      changeRider(rider.id, (before) => ({ ...before, cycles: next })),
      gesture,
    );
  return (
    <Fold title={cycles.length === 0 ? 'Cycles' : `Cycles (${cycles.length})`} isOpen={cycles.length > 0}>
      <Hint>Parts that move on their own during the ride: wings, rotors, antennas.</Hint>
      {cycles.map((cycle, i) => (
        <CycleCard
          key={i}
          rider={rider}
          cycle={cycle}
          nodes={nodes}
          morphs={model?.facts.morphs ?? []}
          onChange={(part, gesture) =>
            change(
              cycles.map((one, k) => (k === i ? { ...one, ...part } : one)),
              gesture,
            )
          }
          onDelete={() => change(cycles.filter((_, k) => k !== i))}
        />
      ))}
      <Buttons>
        <Button
          isDisabled={nodes.length === 0}
          onPress={() => {
            const { checkModels } = desk.getState();
            const hierarchy = checkModels?.hierarchies.get(rider.model ?? '') ?? null;
            const axes = rider.attachment?.facing ?? model?.facts.facing ?? { forward: '+z', up: '+y' };
            change([...cycles, proposeCycle(nodes, hierarchy, axes)]);
          }}
        >
          <Plus aria-hidden /> Add a cycle
        </Button>
      </Buttons>
    </Fold>
  );
}

const NOBODY = ' none';

function CycleCard(props: {
  rider: Rider;
  cycle: Cycle;
  nodes: readonly string[];
  morphs: KeptModel['facts']['morphs'];
  onChange: (part: Partial<Cycle>, gesture?: string) => void;
  onDelete: () => void;
}) {
  const { rider, cycle, nodes, morphs, onChange } = props;
  const desk = useDeskStore();
  const loop = useDesk(({ shot }) => shot.loop);
  const names = cycle.kind === 'morph' ? morphs.map(({ node }) => node) : nodes;
  const others = nodes.filter((name) => name !== cycle.node);
  const pair = cycle.mirror === null ? pairedName(cycle.node, others) : null;
  const offered = names.includes(cycle.node) ? names : [cycle.node, ...names];
  const { shapes = 1, names: called = [] } = morphs.find(({ node }) => node === cycle.node) ?? {};
  const measure = MEASURES[cycle.kind];
  return (
    <WheelCard role="group" aria-label={`Cycle of ${cycle.node}`}>
      <WheelHead>
        <strong>{cycle.node}</strong>
        <span />
        <IconButton label={`Delete the cycle of ${cycle.node}`} onPress={props.onDelete}>
          <Trash2 aria-hidden />
        </IconButton>
      </WheelHead>
      <FieldPair>
        <Select
          label="Part"
          options={offered.map((name) => ({ id: name, name }))}
          value={cycle.node}
          onChange={(node) => onChange({ node })}
        />
        <Select
          label="Motion"
          options={KINDS.filter(({ id }) => id !== 'morph' || morphs.length > 0 || cycle.kind === 'morph')}
          value={cycle.kind}
          onChange={(kind) =>
            onChange({
              kind,
              amplitude: { turn: 30, slide: 0.1, morph: 1 }[kind],
              rest: 0,
              ...(kind === 'morph' && morphs.length > 0 ? { node: morphs[0].node } : {}),
            })
          }
        />
        <Select
          label="Waveform"
          options={CYCLE_SHAPES.map((id) => ({ id, name: SHAPES[id] }))}
          value={cycle.shape}
          onChange={(shape) => onChange({ shape })}
        />
        {cycle.kind === 'morph' && called.length > 0 ? (
          <Select
            label="Morph target"
            options={called.map((name, i) => ({ id: `${i}`, name }))}
            value={`${cycle.morph}`}
            onChange={(morph) => onChange({ morph: Number(morph) })}
          />
        ) : cycle.kind === 'morph' ? (
          <QuantityField
            label="Morph target"
            kind="count"
            whole
            min={1}
            max={shapes}
            value={cycle.morph + 1}
            onChange={(morph, gesture) => onChange({ morph: morph - 1 }, gesture)}
          />
        ) : (
          <Select<Axis>
            label="Axis"
            options={AXES.map((axis) => ({ id: axis, name: axis }))}
            value={cycle.axis}
            onChange={(axis) => onChange({ axis })}
          />
        )}
      </FieldPair>
      <FieldGrid>
        <QuantityFields
          fields={[
            { of: 'amplitude', label: 'Amplitude', ...measure },
            { of: 'rate', label: 'Rate', kind: 'count', unit: cycle.by === 'time' ? '/s' : '/m', step: 0.05 },
          ]}
          value={cycle}
          onChange={onChange}
        />
        <Select
          label="Driven by"
          options={BY}
          value={cycle.by}
          onChange={(by) => onChange(cycleBy(cycle, by, speedNow(desk, rider.id)))}
        />
        <QuantityFields
          fields={[{ of: 'rest', label: 'Rest', ...measure }, ...ALL_CYCLES]}
          value={cycle}
          onChange={onChange}
        />
      </FieldGrid>
      <Select
        label="Mirrored by"
        options={[{ id: NOBODY, name: 'None' }, ...others.map((name) => ({ id: name, name }))]}
        value={cycle.mirror ?? NOBODY}
        onChange={(name) => onChange({ mirror: name === NOBODY ? null : name })}
      />
      {pair !== null && (
        <Buttons>
          <Button onPress={() => onChange({ mirror: pair })}>{pair} moves the same, mirrored</Button>
        </Buttons>
      )}
      <QuickHint rider={rider} rate={cycle.rate} by={cycle.by} />
      {loop && (
        <Tick isSelected={cycle.whole} onChange={(whole) => onChange({ whole })}>
          Whole cycles in the loop
        </Tick>
      )}
    </WheelCard>
  );
}
