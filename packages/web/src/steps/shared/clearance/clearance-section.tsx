import { Clearance, POSE, defaultsOf, type Rider } from '@fleet-rail/core';
import { Trash2 } from 'lucide-react';
import { useMemo } from 'react';
import styled from 'styled-components';
import type { EvaluatedRider } from '../../../workers/evaluation/evaluation';
import { changeRider } from '../../../edits/rider-edits';
import { groundHeightOf } from '../../../workers/scene-assets/ground-height';
import { Badge } from '../../../ui/badge';
import { IconButton } from '../../../ui/icon-button';
import { FieldPair, Hint, Section, SectionTitle } from '../../../ui/panel';
import { QuantityField } from '../../../ui/quantity-field';
import { showNumber } from '../../../ui/quantity';
import { Select } from '../../../ui/select';
import { Tick } from '../../../ui/tick';
import { attempt } from '../../../commands/attempt';
import { useDesk, useDeskStore } from '../../../state/desk-store';
import { LimitChart } from './limit-chart';

const Line = styled.div`
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: end;
  gap: 8px;
`;

/** So many samples of a chart. */
const PLACES = 240;
const NOBODY = ' nobody';

/** Clearances of a rider: from the ground, by a height, and from others, by a distance; with the distance over time. */
export function ClearanceSection({ rider }: { rider: Rider }) {
  const desk = useDeskStore();
  const riders = useDesk(({ shot }) => shot.riders);
  const hasGround = useDesk(({ ground }) => ground !== null);
  const clearance = rider.clearance ?? defaultsOf(Clearance);
  const { floor, from, ease } = clearance;
  const change = (part: Partial<Clearance>, gesture?: string) => {
    const next = { ...clearance, ...part };
    const idle = next.floor === null && next.from.length === 0;
    attempt(
      desk,
      'Clearance',
      changeRider(rider.id, (before) => ({ ...before, clearance: idle ? null : next })),
      gesture,
    );
  };
  const others = riders.filter(({ id }) => id !== rider.id && !from.some((one) => one.rider === id));
  return (
    <Section aria-label="Clearance">
      <SectionTitle>Clearance</SectionTitle>
      <Tick
        isSelected={floor !== null}
        isDisabled={!hasGround}
        onChange={(on) => change({ floor: on ? (rider.camera ? 1 : 2) : null })}
      >
        Keep above the ground
      </Tick>
      {!hasGround && <Hint>The shot has no ground: choose one under Contact › Ground.</Hint>}
      {floor !== null && (
        <FieldPair>
          <QuantityField
            label="At least"
            kind="length"
            value={floor}
            min={0}
            step={0.1}
            onChange={(value, gesture) => change({ floor: value }, gesture)}
          />
          <QuantityField
            label="Ease over"
            kind="time"
            value={ease}
            min={0}
            max={60}
            step={0.1}
            onChange={(value, gesture) => change({ ease: value }, gesture)}
          />
        </FieldPair>
      )}
      {hasGround && (
        <OverGround
          rider={rider}
          limit={floor}
          onLimit={(value, gesture) => change({ floor: value }, gesture)}
        />
      )}
      {from.map((one, i) => {
        const other = riders.find(({ id }) => id === one.rider);
        if (other === undefined) return null;
        const put = (distance: number, gesture?: string) =>
          change({ from: from.map((old, k) => (k === i ? { ...old, distance } : old)) }, gesture);
        return (
          <div key={one.rider}>
            <Line>
              <Badge $color={other.color}>{other.badge}</Badge>
              <QuantityField
                label={`Distance to ${other.badge}`}
                kind="length"
                value={one.distance}
                min={0}
                step={0.1}
                onChange={put}
              />
              <IconButton
                label={`Stop keeping clear of ${other.badge}`}
                onPress={() => change({ from: from.filter((_, k) => k !== i) })}
              >
                <Trash2 aria-hidden />
              </IconButton>
            </Line>
            <ToOther rider={rider} other={other} limit={one.distance} onLimit={put} />
          </div>
        );
      })}
      <Select
        label="Keep a distance to"
        options={[
          { id: NOBODY, name: 'None' },
          ...others.map(({ id, badge, name }) => ({ id, name: `${badge} ${name}` })),
        ]}
        value={NOBODY}
        onChange={(id) => id !== NOBODY && change({ from: [...from, { rider: id, distance: 4 }] })}
      />
    </Section>
  );
}

type Limit = { readonly limit: number | null; readonly onLimit: (value: number, gesture?: string) => void };

/** How high a rider is over the ground under it, over time. */
function OverGround({ rider, limit, onLimit }: { rider: Rider } & Limit) {
  const ground = useDesk((state) => state.ground);
  const poses = useDesk((state) => state.evaluation?.riders.get(rider.id)?.poses);
  const step = useDesk((state) => state.evaluation?.step ?? 1);
  const sampled = useMemo(() => {
    const height = groundHeightOf(ground);
    return samplesOf(poses, (at, of) => {
      const below = height(of[at], of[at + 2], of[at + 1]);
      return below === null ? NaN : of[at + 1] - below;
    });
  }, [ground, poses]);
  return (
    <Chart label="Height over the ground" sampled={sampled} step={step} limit={limit} onLimit={onLimit} />
  );
}

function ToOther({ rider, other, limit, onLimit }: { rider: Rider; other: Rider } & Limit) {
  const own = useDesk((state) => state.evaluation?.riders.get(rider.id)?.poses);
  const its = useDesk((state) => state.evaluation?.riders.get(other.id)?.poses);
  const step = useDesk((state) => state.evaluation?.step ?? 1);
  const sampled = useMemo(
    () =>
      samplesOf(own, (at, of) =>
        its && its.length === of.length
          ? Math.hypot(of[at] - its[at], of[at + 1] - its[at + 1], of[at + 2] - its[at + 2])
          : NaN,
      ),
    [own, its],
  );
  return (
    <Chart
      label={`Distance to ${other.badge} over time`}
      sampled={sampled}
      step={step}
      limit={limit}
      onLimit={onLimit}
    />
  );
}

interface Sampled {
  readonly values: Float64Array;
  /** Samples of the evaluation from one to the next. */
  readonly every: number;
  /** The least of all, and which sample of the evaluation that is. */
  readonly least: number;
  readonly at: number;
}

function samplesOf(
  poses: EvaluatedRider['poses'] | undefined,
  value: (at: number, of: Float64Array) => number,
): Sampled | null {
  if (poses === undefined || poses.length === 0) return null;
  const count = poses.length / POSE.size;
  const every = Math.max(1, Math.ceil(count / PLACES));
  const values = new Float64Array(Math.floor((count - 1) / every) + 1);
  let [least, at] = [Infinity, 0];
  for (let i = 0; i < count; i++) {
    const now = value(i * POSE.size, poses);
    if (i % every === 0) values[i / every] = now;
    if (now < least) [least, at] = [now, i];
  }
  return { values, every, least, at };
}

function Chart({
  label,
  sampled,
  step,
  limit,
  onLimit,
}: { label: string; sampled: Sampled | null; step: number } & Limit) {
  const first = useDesk(({ shot }) => shot.range.first);
  if (sampled === null) return null;
  return (
    <>
      <LimitChart
        label={label}
        values={sampled.values}
        step={step * sampled.every}
        limit={limit}
        onLimit={onLimit}
      />
      <Hint>
        {Number.isFinite(sampled.least)
          ? `Least ${showNumber(sampled.least, 2)} m, at frame ${first + sampled.at * step}.`
          : 'There is no ground under it.'}
      </Hint>
    </>
  );
}
