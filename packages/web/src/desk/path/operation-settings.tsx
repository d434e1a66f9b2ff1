import { BASES, TENSIONS, type Basis, type JoinEnds, type ShotPath } from '@fleet-rail/core';
import { bridgedPaths, proposedTension } from '../../operations/bridge';
import type { Operation } from '../../operations/operation';
import { Choice } from '../../ui/choice';
import { FieldGrid, Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { ToleranceSlider } from '../../ui/tolerance-slider';
import { useDesk } from '../desk-store';
import { BASIS_NAMES } from './basis-names';
import { proposedJoin } from './operate';

const AXES = [
  { id: '0', name: 'Across X' },
  { id: '1', name: 'Y' },
  { id: '2', name: 'Z' },
] as const;

const ENDS = [
  { id: 'end', name: 'Its end' },
  { id: 'start', name: 'Its start' },
] as const;

/** The settings of an operation, each with what it needs to be understood. */
export function OperationSettings({ operation, path }: { operation: Operation; path: ShotPath }) {
  const set = useDesk((state) => state.set);
  const paths = useDesk((state) => state.shot.paths);
  const length = useDesk((state) => state.evaluation?.paths.get(path.id)?.length ?? 0);
  const hasGround = useDesk((state) => state.ground !== null);
  const change = (settings: object) => set({ operation: { ...operation, ...settings } as Operation });
  const tolerance = 'tolerance' in operation && (
    <>
      <Length
        label="Tolerance"
        value={operation.tolerance}
        min={1e-5}
        max={1e3}
        step={0.01}
        onChange={(value) => change({ tolerance: value })}
      />
      <ToleranceSlider
        label="Tolerance, coarser or finer"
        value={operation.tolerance}
        min={1e-3}
        max={Math.max(1, length / 20)}
        onChange={(value) => change({ tolerance: value })}
      />
    </>
  );
  switch (operation.kind) {
    case 'smooth':
      return (
        <>
          <QuantityField
            label="Strength"
            kind="count"
            value={operation.strength}
            min={0}
            max={1}
            step={0.05}
            onChange={(strength) => change({ strength })}
          />
          <ToleranceSlider
            label="Strength, less or more"
            value={operation.strength}
            min={0.02}
            max={1}
            onChange={(strength) => change({ strength })}
          />
        </>
      );
    case 'thin':
      return tolerance;
    case 'resample':
      return (
        <>
          <QuantityField
            label="Points"
            kind="count"
            value={operation.count}
            min={path.closed ? 3 : 2}
            max={5_000}
            whole
            onChange={(count) => change({ count })}
          />
          <Hint>
            One every {showNumber(length / Math.max(1, operation.count - (path.closed ? 0 : 1)), 3)} m
          </Hint>
        </>
      );
    case 'basis':
      return (
        <>
          <Select
            label="New basis"
            options={BASES.filter((basis) => basis !== path.basis).map((id: Basis) => ({
              id,
              name: BASIS_NAMES[id],
            }))}
            value={operation.basis}
            onChange={(basis) => change({ basis })}
          />
          <Hint>Where no exact way leads from one to the other, it is fitted within the tolerance.</Hint>
          {tolerance}
        </>
      );
    case 'move':
      return (
        <>
          <Chosen count={operation.points.length} />
          <FieldGrid>
            {(['X', 'Y', 'Z'] as const).map((axis, k) => (
              <Length
                key={axis}
                label={`Move ${axis}`}
                value={operation.by[k]}
                onChange={(value) => change({ by: operation.by.map((old, i) => (i === k ? value : old)) })}
              />
            ))}
            <QuantityField
              label="Turn left"
              kind="angle"
              value={operation.turnDeg}
              step={5}
              onChange={(turnDeg) => change({ turnDeg })}
            />
            <QuantityField
              label="Tilt"
              kind="angle"
              value={operation.tiltDeg}
              step={5}
              onChange={(tiltDeg) => change({ tiltDeg })}
            />
            <QuantityField
              label="Scale"
              kind="count"
              value={operation.scale}
              min={1e-3}
              max={1e3}
              step={0.05}
              onChange={(scale) => change({ scale })}
            />
          </FieldGrid>
        </>
      );
    case 'lift':
      return (
        <>
          <Chosen count={operation.points.length} />
          <Length label="Height" value={operation.height} onChange={(height) => change({ height })} />
        </>
      );
    case 'level':
      return (
        <Length
          label="Height of all points"
          value={operation.height}
          onChange={(height) => change({ height })}
        />
      );
    case 'drape':
      return (
        <>
          {!hasGround && <Hint>This shot has no ground of its own: the level at height 0 is taken.</Hint>}
          <Length
            label="Height over the ground"
            value={operation.height}
            step={0.05}
            onChange={(height) => change({ height })}
          />
          {tolerance}
        </>
      );
    case 'mirror':
      return (
        <>
          <Choice
            label="Mirror"
            options={AXES}
            value={String(operation.axis) as '0' | '1' | '2'}
            onChange={(axis) => change({ axis: Number(axis) })}
          />
          <Length label="Mirror plane at" value={operation.at} onChange={(at) => change({ at })} />
          <Copy copy={operation.copy} onChange={(copy) => change({ copy })} />
        </>
      );
    case 'offset':
      return (
        <>
          <Length
            label="To the left by"
            value={operation.side}
            step={0.25}
            onChange={(side) => change({ side })}
          />
          <Copy copy={operation.copy} onChange={(copy) => change({ copy })} />
          {tolerance}
        </>
      );
    case 'reverse':
      return (
        <>
          <Choice
            label="Riders"
            options={[
              { id: 'stay', name: 'Riders stay as they go' },
              { id: 'turn', name: 'Turn with it' },
            ]}
            value={operation.turnRiders ? 'turn' : 'stay'}
            onChange={(riders) => change({ turnRiders: riders === 'turn' })}
          />
          <Hint>
            {operation.turnRiders
              ? 'Riders keep their keys and run the path from its other end.'
              : 'Riders are where they were at every frame; they now go backward along it.'}
          </Hint>
        </>
      );
    case 'first':
      return (
        <QuantityField
          label="First point"
          kind="count"
          value={operation.index + 1}
          min={1}
          max={path.points.length}
          whole
          onChange={(index) => change({ index: index - 1 })}
        />
      );
    case 'open':
    case 'split':
      return (
        <>
          <Length
            label="At"
            value={operation.at}
            min={0}
            max={length}
            step={0.5}
            onChange={(at) => change({ at })}
          />
          <Hint>Or click the path there.</Hint>
        </>
      );
    case 'close':
      return (
        <>
          <Choice
            label="How"
            options={[
              { id: 'bridge', name: 'Smooth bridge' },
              { id: 'own', name: 'In its own basis' },
            ]}
            value={operation.bridge ? 'bridge' : 'own'}
            onChange={(how) => change({ bridge: how === 'bridge' })}
          />
          {operation.bridge && (
            <Tension value={operation.tension} onChange={(tension) => change({ tension })} />
          )}
        </>
      );
    case 'join': {
      const others = paths.filter((other) => other.id !== path.id && !other.closed);
      const meet = (ends: JoinEnds) => {
        const other = others.find(({ id }) => id === operation.other);
        if (other) change({ ends, tension: proposedTension(bridgedPaths(path, other, ends)) });
      };
      return (
        <>
          <Select
            label="With"
            options={others.map(({ id, name }) => ({ id, name }))}
            value={operation.other}
            onChange={(id) => {
              const other = others.find((one) => one.id === id);
              if (other) change(proposedJoin(path, other));
            }}
          />
          <Hint>This path meets it with</Hint>
          <Choice
            label="End of this path"
            options={ENDS}
            value={operation.ends.first}
            onChange={(first) => meet({ ...operation.ends, first })}
          />
          <Hint>and the other with</Hint>
          <Choice
            label="End of the other path"
            options={ENDS}
            value={operation.ends.second}
            onChange={(second) => meet({ ...operation.ends, second })}
          />
          <Tension value={operation.tension} onChange={(tension) => change({ tension })} />
        </>
      );
    }
    case 'unlink':
    case 'transform':
      return null;
  }
}

function Length(props: {
  label: string;
  value: number;
  min?: number;
  max?: number;
  step?: number;
  onChange: (value: number) => void;
}) {
  const { min = -1e6, max = 1e6, step = 0.1, ...rest } = props;
  return <QuantityField kind="length" min={min} max={max} step={step} digits={4} {...rest} />;
}

function Tension({ value, onChange }: { value: number; onChange: (value: number) => void }) {
  return (
    <QuantityField
      label="Bridge tension"
      kind="count"
      value={value}
      min={0.1}
      max={TENSIONS.most}
      step={0.1}
      digits={3}
      onChange={onChange}
    />
  );
}

function Copy({ copy, onChange }: { copy: boolean; onChange: (copy: boolean) => void }) {
  return (
    <Tick isSelected={copy} onChange={onChange}>
      As a path of its own, beside this one
    </Tick>
  );
}

function Chosen({ count }: { count: number }) {
  return (
    <Hint>
      {count === 0 ? 'The whole path.' : count === 1 ? 'The chosen point.' : `The ${count} chosen points.`}
    </Hint>
  );
}
