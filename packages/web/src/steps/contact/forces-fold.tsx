import { AXES, RigidBody, defaultsOf, frameCount, type Rider, type SeamGap } from '@fleet-rail/core';
import { useEffect, useMemo, useState } from 'react';
import type { KeptModel } from '../../api/models';
import { changeRider } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Fold } from '../../ui/fold';
import { Buttons, FieldGrid, FieldPair, Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { QuantityFields, type NumberOf } from '../../ui/quantity-fields';
import { Select } from '../../ui/select';
import { LimitChart } from '../shared/clearance/limit-chart';
import { useDesk } from '../../state/desk-store';
import { useCheckClient } from '../../state/check-context';
import { shapeFound } from './shape-found';

const SHAPES: readonly { id: RigidBody['shape']; name: string }[] = [
  { id: 'ball', name: 'Ball' },
  { id: 'box', name: 'Box' },
  { id: 'cylinder', name: 'Cylinder' },
  { id: 'hull', name: 'Convex hull' },
];

/** Preset of a rigid body; shape and size stay. */
const LOOKS: readonly { name: string; parts: Partial<RigidBody> }[] = [
  {
    name: 'Rolls',
    parts: { pull: 0.6, turnPull: 0, friction: 0.9, bounce: 0.1, damping: 0, spinDamping: 0 },
  },
  {
    name: 'Tumbles',
    parts: { pull: 0.4, turnPull: 0, friction: 0.6, bounce: 0.4, damping: 0, spinDamping: 0 },
  },
  {
    name: 'Drags',
    parts: { pull: 0.5, turnPull: 0.7, friction: 0.8, bounce: 0, damping: 0.5, spinDamping: 2 },
  },
  {
    name: 'Swings wide',
    parts: { pull: 0.25, turnPull: 0.5, friction: 0.15, bounce: 0.1, damping: 0, spinDamping: 1 },
  },
];

const BODY: readonly NumberOf<RigidBody>[] = [
  { of: 'mass', label: 'Mass', kind: 'count', unit: 'kg', min: 0.001, max: 1e7, step: 1 },
  { of: 'friction', label: 'Friction', kind: 'count', min: 0, max: 10, step: 0.05 },
  { of: 'bounce', label: 'Bounce', kind: 'count', min: 0, max: 1, step: 0.05 },
];
const PULLS: readonly NumberOf<RigidBody>[] = [
  { of: 'pull', label: 'Pull', kind: 'count', min: 0, max: 1, step: 0.05 },
  { of: 'turnPull', label: 'Turn pull', kind: 'count', min: 0, max: 1, step: 0.05 },
  { of: 'drag', label: 'Drag', kind: 'count', unit: 'kg/m', min: 0, max: 1e4, step: 0.05 },
  { of: 'damping', label: 'Damping', kind: 'count', unit: '/s', min: 0, max: 1e3, step: 0.1 },
  { of: 'spinDamping', label: 'Spin damping', kind: 'count', unit: '/s', min: 0, max: 1e3, step: 0.1 },
];

/** Whether a rider goes just where its path has it, or is pulled there and else left to forces. */
export function ForcesFold({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const edit = useDesk((state) => state.edit);
  const loop = useDesk(({ shot }) => shot.loop);
  const { rigidBody } = rider;
  const put = (label: string, next: RigidBody | null, gesture?: string) =>
    edit(
      label,
      changeRider(rider.id, (before) => ({ ...before, rigidBody: next })),
      gesture,
    );
  const change = (part: Partial<RigidBody>, gesture?: string) =>
    rigidBody && put('Forces', { ...rigidBody, ...part }, gesture);
  return (
    <Fold title={rigidBody ? 'Forces (on)' : 'Forces'} isOpen={rigidBody !== null}>
      <Choice
        label="Moved by"
        options={[
          { id: 'ride', name: 'Its ride exactly' },
          { id: 'forces', name: 'Forces' },
        ]}
        value={rigidBody ? 'forces' : 'ride'}
        onChange={(by) =>
          put(
            by === 'forces' ? 'Move it by forces' : 'Move it by its ride',
            by === 'forces'
              ? { ...defaultsOf(RigidBody), ...shapeFound(model, rider), ...LOOKS[0].parts }
              : null,
          )
        }
      />
      <Hint>
        {rigidBody
          ? 'Pulled along its path; gravity, ground and collisions do the rest.'
          : 'Exactly on its path. Choose forces for things that roll loose, tumble, lag or collide.'}
      </Hint>
      {rigidBody && (
        <>
          <Buttons role="group" aria-label="Preset">
            {LOOKS.map(({ name, parts }) => (
              <Button key={name} onPress={() => put(name, { ...rigidBody, ...parts })}>
                {name}
              </Button>
            ))}
          </Buttons>
          <FieldPair>
            <Select
              label="Collides as"
              options={SHAPES}
              value={rigidBody.shape}
              onChange={(shape) => change({ shape })}
            />
            <QuantityField
              label={rigidBody.shape === 'ball' || rigidBody.shape === 'cylinder' ? 'Radius' : 'Half height'}
              kind="length"
              min={0.001}
              max={1e4}
              step={0.01}
              digits={3}
              value={rigidBody.size}
              onChange={(size, gesture) => change({ size }, gesture)}
            />
          </FieldPair>
          {rigidBody.shape === 'cylinder' && (
            <Select
              label="Axis"
              options={AXES.map((id) => ({ id, name: id }))}
              value={rigidBody.axis}
              onChange={(axis) => change({ axis })}
            />
          )}
          {model && (
            <Buttons>
              <Button onPress={() => change(shapeFound(model, rider))}>
                Use shape and size of its model
              </Button>
            </Buttons>
          )}
          <FieldGrid>
            <QuantityFields fields={[...BODY, ...PULLS]} value={rigidBody} onChange={change} />
          </FieldGrid>
          <Lag rider={rider} />
          {loop && (
            <Gap rider={rider} blend={rigidBody.blend} onBlend={(blend, by) => change({ blend }, by)} />
          )}
        </>
      )}
    </Fold>
  );
}

/** How far it is behind its place on the path, over time. */
function Lag({ rider }: { rider: Rider }) {
  const gauges = useDesk(({ evaluation }) => evaluation?.riders.get(rider.id)?.gauges);
  const step = useDesk(({ evaluation }) => evaluation?.step ?? 1);
  const first = useDesk(({ shot }) => shot.range.first);
  const values = gauges?.find(({ kind }) => kind === 'lag')?.values;
  const { shown, most, at, every } = useMemo(() => thinned(values ?? new Float64Array(0)), [values]);
  if (!values) return <Hint role="status">Computing forces…</Hint>;
  return (
    <>
      <LimitChart
        label="Lag behind its path position"
        values={shown}
        step={step * every}
        limit={null}
        onLimit={() => undefined}
      />
      <Hint>
        It lags by {showNumber(most, 2)} m at most, at frame {first + at * step}.
      </Hint>
    </>
  );
}

/** So many values of a chart. */
const PLACES = 240;

function thinned(values: Float64Array) {
  const every = Math.max(1, Math.ceil(values.length / PLACES));
  let at = 0;
  values.forEach((value, i) => {
    if (value > values[at]) at = i;
  });
  const shown = Float64Array.from({ length: Math.floor((values.length - 1) / every) + 1 }, (_, i) =>
    Math.max(0, values[i * every]),
  );
  return { shown, most: Math.max(0, values[at] ?? 0), at, every };
}

/** How far it is from where it began when the loop begins anew, and a blend that closes that. */
function Gap(props: { rider: Rider; blend: number; onBlend: (blend: number, gesture?: string) => void }) {
  const { rider, blend, onBlend } = props;
  const evaluation = useDesk((state) => state.evaluation);
  const shot = useDesk((state) => state.shot);
  const client = useCheckClient();
  const [gap, setGap] = useState<SeamGap | null>(null);
  const settled = evaluation?.settling === null && evaluation.now === null;
  useEffect(() => {
    if (!settled) return undefined;
    let gone = false;
    void client?.seam(shot).then(
      (seam) =>
        !gone && setGap(seam.find((one) => one.rider === rider.id && one.channel === 'place') ?? null),
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [client, settled, shot, rider.id]);
  const half = Math.max(1, Math.floor(frameCount(shot) / 2));
  // A relay's next rider continues the motion, so there is no gap to close.
  const alone = gap !== null && gap.meets === rider.id;
  return (
    <>
      {gap && (
        <Hint role="status">
          {gap.meets !== rider.id
            ? `Its relay continues ${gap.gap < 1e-3 ? 'without a gap' : `with a gap of ${showNumber(gap.gap, 3)} m`}.`
            : gap.gap < 1e-3
              ? 'The loop closes.'
              : `The loop does not close: ${showNumber(gap.gap, 3)} m apart.`}
        </Hint>
      )}
      {alone && (
        <QuantityField
          label="Blend the last"
          kind="count"
          unit="f"
          whole
          min={0}
          max={10_000}
          value={blend}
          onChange={onBlend}
        />
      )}
      {alone && blend === 0 && gap.gap >= 1e-3 && (
        <Buttons>
          <Button onPress={() => onBlend(Math.min(12, half))}>
            Blend the last {Math.min(12, half)} frames into the first
          </Button>
        </Buttons>
      )}
    </>
  );
}
