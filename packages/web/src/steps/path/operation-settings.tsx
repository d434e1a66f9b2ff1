import { BASES, TENSIONS, type Basis, type JoinEnds, type ShotPath, type Vec3 } from '@fleet-rail/core';
import type { ReactNode } from 'react';
import { bridgedPaths, proposedTension } from '../../workers/operations/bridge';
import type { Operation } from '../../workers/operations/operation';
import { Choice } from '../../ui/choice';
import { FieldGrid, Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField, type QuantityFieldProps } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { ToleranceSlider } from '../../ui/tolerance-slider';
import { useDesk } from '../../state/desk-store';
import { BASIS_NAMES } from '../../ui/words/basis-names';
import { proposedJoin } from '../../commands/operate';

const AXES = [
  { id: '0', name: 'Across X' },
  { id: '1', name: 'Y' },
  { id: '2', name: 'Z' },
] as const;

const ENDS = [
  { id: 'end', name: 'Its end' },
  { id: 'start', name: 'Its start' },
] as const;

type Of<K extends Operation['kind']> = Extract<Operation, { kind: K }>;

/** Labels and limits of an operation's settings. */
interface SettingsProps<K extends Operation['kind']> {
  readonly operation: Of<K>;
  readonly path: ShotPath;
  /** Metres of the path. */
  readonly length: number;
  readonly change: (settings: Partial<Of<K>>) => void;
}

type Settings = { readonly [K in Operation['kind']]: ((props: SettingsProps<K>) => ReactNode) | null };

/** The settings of each operation, each with what it needs to be understood. */
const SETTINGS: Settings = {
  smooth: ({ operation, change }) => (
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
  ),
  corners: ({ operation, change }) => (
    <>
      <Chosen count={operation.points.length} />
      <Length label="Radius" value={operation.radius} min={0.001} onChange={(radius) => change({ radius })} />
      <Hint>Without enough room, the arc is as large as fits.</Hint>
    </>
  ),
  thin: (props) => <Tolerance {...props} />,
  resample: ({ operation, path, length, change }) => (
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
      <Hint>One every {showNumber(length / Math.max(1, operation.count - (path.closed ? 0 : 1)), 3)} m</Hint>
    </>
  ),
  basis: (props) => (
    <>
      <Select
        label="New basis"
        options={BASES.filter((basis) => basis !== props.path.basis).map((id: Basis) => ({
          id,
          name: BASIS_NAMES[id],
        }))}
        value={props.operation.basis}
        onChange={(basis) => props.change({ basis })}
      />
      <Hint>Without an exact conversion, the curve is fitted within the tolerance.</Hint>
      <Tolerance {...props} />
    </>
  ),
  move: ({ operation, change }) => (
    <>
      <Chosen count={operation.points.length} />
      <FieldGrid>
        {(['X', 'Y', 'Z'] as const).map((axis, k) => (
          <Length
            key={axis}
            label={`Move ${axis}`}
            value={operation.by[k]}
            onChange={(value) =>
              change({ by: operation.by.map((old, i) => (i === k ? value : old)) as Vec3 })
            }
          />
        ))}
        {MOVES.map(({ of, ...field }) => (
          <QuantityField
            key={of}
            {...field}
            value={operation[of]}
            onChange={(value) => change({ [of]: value })}
          />
        ))}
      </FieldGrid>
    </>
  ),
  lift: ({ operation, change }) => (
    <>
      <Chosen count={operation.points.length} />
      <Length label="Height" value={operation.height} onChange={(height) => change({ height })} />
    </>
  ),
  level: ({ operation, change }) => (
    <Length label="Height of all points" value={operation.height} onChange={(height) => change({ height })} />
  ),
  drape: DrapeSettings,
  mirror: ({ operation, change }) => (
    <>
      <Choice
        label="Mirror"
        options={AXES}
        value={String(operation.axis) as '0' | '1' | '2'}
        onChange={(axis) => change({ axis: Number(axis) as 0 | 1 | 2 })}
      />
      <Length label="Mirror plane at" value={operation.at} onChange={(at) => change({ at })} />
      <Copy copy={operation.copy} onChange={(copy) => change({ copy })} />
    </>
  ),
  offset: (props) => (
    <>
      <Length
        label="To the left by"
        value={props.operation.side}
        step={0.25}
        onChange={(side) => props.change({ side })}
      />
      <Copy copy={props.operation.copy} onChange={(copy) => props.change({ copy })} />
      <Tolerance {...props} />
    </>
  ),
  reverse: ({ operation, change }) => (
    <>
      <Choice
        label="Riders"
        options={[
          { id: 'stay', name: 'Riders keep their motion' },
          { id: 'turn', name: 'Riders turn around' },
        ]}
        value={operation.turnRiders ? 'turn' : 'stay'}
        onChange={(riders) => change({ turnRiders: riders === 'turn' })}
      />
      <Hint>
        {operation.turnRiders
          ? 'Riders keep their keys and start from the other end.'
          : 'Riders stay where they were at every frame and now go backward.'}
      </Hint>
    </>
  ),
  first: ({ operation, path, change }) => (
    <>
      <QuantityField
        label="First point"
        kind="count"
        value={operation.index + 1}
        min={1}
        max={path.points.length}
        whole
        onChange={(index) => change({ index: index - 1 })}
      />
      <Tick isSelected={operation.startRiders} onChange={(startRiders) => change({ startRiders })}>
        Riders start there too
      </Tick>
    </>
  ),
  open: (props) => <At {...props} />,
  split: (props) => <At {...props} />,
  close: ({ operation, change }) => (
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
      {operation.bridge && <Tension value={operation.tension} onChange={(tension) => change({ tension })} />}
    </>
  ),
  join: JoinSettings,
  unlink: null,
  transform: null,
};

const MOVES: readonly ({ readonly of: 'turnDeg' | 'tiltDeg' | 'scale' } & Pick<
  QuantityFieldProps,
  'label' | 'kind' | 'min' | 'max' | 'step'
>)[] = [
  { of: 'turnDeg', label: 'Turn left', kind: 'angle', step: 5 },
  { of: 'tiltDeg', label: 'Tilt', kind: 'angle', step: 5 },
  { of: 'scale', label: 'Scale', kind: 'count', min: 1e-3, max: 1e3, step: 0.05 },
];

/** The settings of an operation that is being set up. */
export function OperationSettings({ operation, path }: { operation: Operation; path: ShotPath }) {
  const set = useDesk((state) => state.set);
  const length = useDesk((state) => state.evaluation?.paths.get(path.id)?.length ?? 0);
  // The settings of an operation follow from its kind, which the compiler cannot see through the table.
  const Shown = SETTINGS[operation.kind] as ((props: SettingsProps<Operation['kind']>) => ReactNode) | null;
  if (Shown === null) return null;
  const change = (settings: Partial<Operation>) =>
    set({ operation: { ...operation, ...settings } as Operation });
  return <Shown operation={operation} path={path} length={length} change={change} />;
}

function DrapeSettings(props: SettingsProps<'drape'>) {
  const hasGround = useDesk((state) => state.ground !== null);
  return (
    <>
      {!hasGround && <Hint>This shot has no ground; height 0 is used.</Hint>}
      <Length
        label="Height over the ground"
        value={props.operation.height}
        step={0.05}
        onChange={(height) => props.change({ height })}
      />
      <Tolerance {...props} />
    </>
  );
}

function JoinSettings({ operation, path, change }: SettingsProps<'join'>) {
  const paths = useDesk((state) => state.shot.paths);
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
      <Hint>Joins at this path’s</Hint>
      <Choice
        label="End of this path"
        options={ENDS}
        value={operation.ends.first}
        onChange={(first) => meet({ ...operation.ends, first })}
      />
      <Hint>and the other’s</Hint>
      <Choice
        label="End of the other path"
        options={ENDS}
        value={operation.ends.second}
        onChange={(second) => meet({ ...operation.ends, second })}
      />
      {operation.ends.first === operation.ends.second && (
        <Hint role="status">
          {others.find(({ id }) => id === operation.other)?.name ?? 'The other path'} is reversed, so that all
          of it runs the way {path.name} goes.
        </Hint>
      )}
      <Tension value={operation.tension} onChange={(tension) => change({ tension })} />
    </>
  );
}

/** Distance at which a path is cut. */
function At(props: {
  operation: { at: number };
  length: number;
  change: (settings: { at: number }) => void;
}) {
  return (
    <>
      <Length
        label="At"
        value={props.operation.at}
        min={0}
        max={props.length}
        step={0.5}
        onChange={(at) => props.change({ at })}
      />
      <Hint>Or click the path there.</Hint>
    </>
  );
}

function Tolerance(props: {
  operation: { tolerance: number };
  length: number;
  change: (settings: { tolerance: number }) => void;
}) {
  const { tolerance } = props.operation;
  const put = (value: number) => props.change({ tolerance: value });
  return (
    <>
      <Length label="Tolerance" value={tolerance} min={1e-5} max={1e3} step={0.01} onChange={put} />
      <ToleranceSlider
        label="Tolerance, coarser or finer"
        value={tolerance}
        min={1e-3}
        max={Math.max(1, props.length / 20)}
        onChange={put}
      />
    </>
  );
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
      label="Bridge swing"
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
      As a new path
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
