import { HANDLES, setHandlesKind, type Handles, type PathPoint, type ShotPath } from '@fleet-rail/core';
import { ArrowDown, ArrowUp, BoxSelect, ChevronLeft, ChevronRight, CirclePlus, Trash2 } from 'lucide-react';
import { memo, useMemo, useState } from 'react';
import styled from 'styled-components';
import {
  reshapePath,
  changePoints,
  deletePathPoints,
  placePathPoint,
  reorderPoint,
} from '../../edits/path-edits';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { Row, RowFigure, RowList, RowName } from '../../ui/row-list';
import { Tick } from '../../ui/tick';
import { GridChoice } from '../shared/grid-choice';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { useNudgeKeys } from '../../viewport/pointer/use-nudge-keys';
import { HANDLES_NAMES } from '../../ui/words/basis-names';

const Coordinate = styled(RowFigure)`
  width: 58px;
  padding-right: 4px;
  text-align: right;
`;

const GridRow = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
`;

const Heads = styled.div`
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-bottom: -6px;
  padding-right: 9px;
  color: ${({ theme }) => theme.quiet};
  font-size: 11px;
  & > span {
    width: 58px;
    text-align: right;
  }
`;

const AXES = ['X', 'Y (height)', 'Z'] as const;
/** Rows on a page: a list of interactive rows takes about a millisecond for each. */
const LISTED = 50;

/** The points of a path: a list to walk, and what can be set of the chosen ones. */
export function PointsSection({ path }: { path: ShotPath }) {
  const desk = useDeskStore();
  const set = useDesk((state) => state.set);
  const points = useDesk((state) => state.points);
  const drawing = useDesk((state) => state.drawing);
  const nudge = useNudgeKeys(desk, true);
  const { from, to, setFrom } = usePage(path.points.length, points);
  return (
    <Section aria-label="Points">
      <GridRow>
        <SectionTitle>Points</SectionTitle>
        <GridRow>
          <Hint>Grid</Hint>
          <GridChoice />
        </GridRow>
      </GridRow>
      <QuantityField
        label="Soft move radius"
        kind="length"
        min={0}
        max={1e6}
        step={0.5}
        value={drawing.softRadius}
        onChange={(softRadius) => set({ drawing: { ...drawing, softRadius } })}
      />
      <Buttons>
        <Button onPress={() => set({ tool: { kind: 'insert' } })}>
          <CirclePlus aria-hidden /> Insert
        </Button>
        <Button onPress={() => set({ tool: { kind: 'box' } })}>
          <BoxSelect aria-hidden /> Box
        </Button>
        <Button onPress={() => set({ points: new Set(path.points.keys()) })}>All</Button>
      </Buttons>
      {points.size > 0 ? (
        <ChosenPoints path={path} />
      ) : (
        <Hint>Drag a point over the ground, or its head to lift it.</Hint>
      )}
      <Heads aria-hidden>
        <span>X</span>
        <span>Height</span>
        <span>Z</span>
      </Heads>
      <div onKeyDownCapture={nudge}>
        <PointRows pathId={path.id} from={from} to={to} />
      </div>
      {path.points.length > LISTED && (
        <GridRow>
          <IconButton label="Earlier points" isDisabled={from === 0} onPress={() => setFrom(from - LISTED)}>
            <ChevronLeft aria-hidden />
          </IconButton>
          <Hint>
            {from + 1} to {to} of {path.points.length}
          </Hint>
          <IconButton
            label="Later points"
            isDisabled={to === path.points.length}
            onPress={() => setFrom(from + LISTED)}
          >
            <ChevronRight aria-hidden />
          </IconButton>
        </GridRow>
      )}
    </Section>
  );
}

/** The list itself, which does not re-render while points are moved: only their numbers do. */
const PointRows = memo(function PointRows(props: { pathId: string; from: number; to: number }) {
  const { pathId, from, to } = props;
  const set = useDesk((state) => state.set);
  const points = useDesk((state) => state.points);
  const count = useDesk(({ shot }) => shot.paths.find(({ id }) => id === pathId)?.points.length ?? 0);
  const rows = useMemo(
    () =>
      Array.from({ length: Math.min(to, count) - from }, (_, n) => (
        <Row key={from + n} id={from + n} textValue={`Point ${from + n + 1}`}>
          <PointFigures pathId={pathId} index={from + n} />
        </Row>
      )),
    [pathId, from, to, count],
  );
  return (
    <RowList
      aria-label="Points"
      selectionMode="multiple"
      selectionBehavior="replace"
      selectedKeys={[...points].filter((i) => i >= from && i < to)}
      onSelectionChange={(keys) =>
        set({
          points:
            keys === 'all'
              ? new Set(Array.from({ length: count }, (_, i) => i))
              : new Set([...keys].map(Number)),
        })
      }
    >
      {rows}
    </RowList>
  );
});

function PointFigures({ pathId, index }: { pathId: string; index: number }) {
  const point = useDesk(({ shot }) => shot.paths.find(({ id }) => id === pathId)?.points[index]);
  if (point === undefined) return null;
  return (
    <>
      <RowName>
        {index + 1}
        {point.off ? ' (off)' : ''}
      </RowName>
      {point.position.map((value, k) => (
        <Coordinate key={k}>{showNumber(value, 2)}</Coordinate>
      ))}
    </>
  );
}

/** Which points are listed: a page of them, turned by hand, and to a point that is chosen elsewhere. */
function usePage(count: number, points: ReadonlySet<number>) {
  const [from, setFrom] = useState(0);
  const [seen, setSeen] = useState(points);
  const first = points.size > 0 ? Math.min(...points) : null;
  if (points !== seen) {
    setSeen(points);
    if (first !== null && ![...points].some((i) => i >= from && i < from + LISTED)) {
      setFrom(first - (first % LISTED));
    }
  }
  const start = from < count ? from : 0;
  return { from: start, to: Math.min(count, start + LISTED), setFrom };
}

/** Common values of the selected points, and edits of them. */
function ChosenPoints({ path }: { path: ShotPath }) {
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const points = useDesk((state) => state.points);
  const grid = useDesk((state) => state.drawing.grid);
  const chosen = [...points].flatMap((i) => path.points[i] ?? []);
  const [first] = chosen;
  if (first === undefined) return null;
  const only = points.size === 1 ? [...points][0] : null;
  const change = (label: string, part: Partial<PathPoint>, gesture?: string) =>
    edit(
      label,
      changePoints(path.id, points, (point) => ({ ...point, ...part })),
      gesture,
    );
  const common = <T,>(of: (point: PathPoint) => T): T | null =>
    chosen.every((point) => of(point) === of(first)) ? of(first) : null;
  const reorder = (index: number, by: 1 | -1) => {
    edit('Reorder points', reorderPoint(path.id, index, by));
    set({ points: new Set([index + by]) });
  };
  const remove = () => {
    edit('Delete points', deletePathPoints(path.id, points));
    set({ points: new Set() });
  };
  return (
    <>
      {only !== null ? (
        <FieldGrid>
          {AXES.map((axis, k) => (
            <QuantityField
              key={axis}
              label={axis}
              kind="length"
              value={first.position[k]}
              min={-1e7}
              max={1e7}
              step={grid || 0.1}
              onChange={(value, gesture) => {
                const position: PathPoint['position'] = [...first.position];
                position[k] = value;
                edit('Move point', placePathPoint(path.id, only, position), gesture);
              }}
            />
          ))}
        </FieldGrid>
      ) : (
        <SeveralPlaces path={path} points={points} chosen={chosen} />
      )}
      {path.basis === 'bezier' && (
        <Choice
          label="Handles"
          options={HANDLES.map((id) => ({ id, name: HANDLES_NAMES[id] }))}
          value={common((point) => point.handles) ?? ('mixed' as Handles)}
          onChange={(kind) =>
            edit(
              'Handles',
              reshapePath(path.id, (old) => setHandlesKind(old, points, kind)),
            )
          }
        />
      )}
      <FieldGrid>
        <QuantityField
          label="Roll"
          kind="angle"
          value={first.roll}
          min={-3600}
          max={3600}
          step={5}
          onChange={(roll, gesture) => change('Roll of points', { roll }, gesture)}
        />
        {path.basis === 'nurbs' && (
          <QuantityField
            label="Weight"
            kind="count"
            value={first.weight}
            min={1e-3}
            max={1e3}
            step={0.1}
            onChange={(weight, gesture) => change('Weight of points', { weight }, gesture)}
          />
        )}
      </FieldGrid>
      <GridRow>
        <Tick
          isSelected={common((point) => point.off) ?? false}
          isMixed={common((point) => point.off) === null}
          onChange={(off) => change(off ? 'Switch points off' : 'Switch points on', { off })}
        >
          Switched off
        </Tick>
        <Buttons>
          {only !== null && (
            <>
              <IconButton
                label="Earlier in the order"
                isDisabled={only === 0}
                onPress={() => reorder(only, -1)}
              >
                <ArrowUp aria-hidden />
              </IconButton>
              <IconButton
                label="Later in the order"
                isDisabled={only === path.points.length - 1}
                onPress={() => reorder(only, 1)}
              >
                <ArrowDown aria-hidden />
              </IconButton>
            </>
          )}
          <IconButton label="Delete points" onPress={remove}>
            <Trash2 aria-hidden />
          </IconButton>
        </Buttons>
      </GridRow>
    </>
  );
}

/** Positions of several points: set for all, or moved by a step; what is typed is evaluated for each. */
function SeveralPlaces(props: { path: ShotPath; points: ReadonlySet<number>; chosen: readonly PathPoint[] }) {
  const { path, points, chosen } = props;
  const edit = useDesk((state) => state.edit);
  const grid = useDesk((state) => state.drawing.grid);
  const [first] = chosen;
  const each = (k: number, of: (now: number) => number, gesture?: string) =>
    edit(
      'Move points',
      changePoints(path.id, points, (point) => {
        const position: PathPoint['position'] = [...point.position];
        position[k] = of(position[k]);
        return { ...point, position };
      }),
      gesture,
    );
  return (
    <>
      <Hint>{points.size} points chosen. A number sets them all; +2 m moves each.</Hint>
      <FieldGrid>
        {AXES.map((axis, k) => (
          <QuantityField
            key={axis}
            label={axis}
            kind="length"
            value={first.position[k]}
            isMixed={chosen.some(({ position }) => position[k] !== first.position[k])}
            min={-1e7}
            max={1e7}
            step={grid || 0.1}
            onChange={(value, gesture) => each(k, (now) => now + value - first.position[k], gesture)}
            onTyped={(of) => each(k, of)}
          />
        ))}
      </FieldGrid>
    </>
  );
}
