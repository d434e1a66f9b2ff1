import { LIMITS } from '@fleet-rail/core';
import { useMemo, useState } from 'react';
import styled, { useTheme } from 'styled-components';
import { sentenceOf } from '../../api/request';
import { Button, PrimaryButton } from '../../ui/button';
import { CancelButton } from '../../ui/cancel-button';
import { notify } from '../../ui/notices';
import { Buttons, FieldPair, Hint, Section, SectionTitle } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { Row, RowFigure, RowList, RowName } from '../../ui/row-list';
import { Select } from '../../ui/select';
import { useDesk, useDeskStore } from '../../state/desk-store';
import {
  FILE_UNITS,
  longestOf,
  viewOf,
  withUnit,
  type ImportLook,
  type Importing,
} from '../../state/importing';
import { chosenOf, take } from './import-paths';

/** Rows listed together without a pause; more on request. */
const ROWS = 12;
/** Places of a sketch. */
const SKETCHED = 48;

const Sketch = styled.svg`
  flex: none;
  width: 44px;
  height: 28px;
`;

/** Paths of a file to import, and their size. */
export function ImportCard({ importing }: { importing: Importing }) {
  const desk = useDeskStore();
  const free = useDesk((state) => LIMITS.paths - state.shot.paths.length);
  const [rows, setRows] = useState(ROWS);
  const { file, imported, looks, chosen, times } = importing;
  const { paths, rides, notes, metresPerUnit } = imported;
  const change = (part: Partial<Importing>) => desk.getState().set({ importing: { ...importing, ...part } });
  const longest = longestOf(importing);
  /** Another size, seen whole. */
  const resize = (to: Importing) => desk.getState().set({ importing: to, lookFrom: viewOf(to) });
  const metres = importing.scale * times;
  const end = () => desk.getState().set({ importing: null });
  const told = metresPerUnit ?? null;
  const units = [
    ...(told === null ? [] : [{ id: 'told', name: 'as the file says', metres: told }]),
    ...FILE_UNITS,
    { id: 'own', name: 'of your own', metres },
  ];
  const unit = units.find((one) => Math.abs(one.metres / metres - 1) < 1e-9) ?? units[units.length - 1];
  return (
    <>
      <Section>
        <SectionTitle>Import {file}</SectionTitle>
        <Hint>
          {paths.length} {paths.length === 1 ? 'path' : 'paths'} in it.
          {rides.length > 0 &&
            ` ${rides.length === 1 ? 'One is' : `${rides.length} are`} timed: each becomes a path with keys, ridden by a carrier.`}
        </Hint>
        {notes.map((note) => (
          <Hint key={note}>{note}</Hint>
        ))}
        <RowList
          aria-label="Paths of the file"
          selectionMode="multiple"
          selectionBehavior="toggle"
          selectedKeys={[...chosen].map(String)}
          onSelectionChange={(keys) =>
            change({ chosen: new Set(keys === 'all' ? paths.keys() : [...keys].map(Number)) })
          }
        >
          {paths.slice(0, rows).map(({ id, name }, i) => (
            <Row key={id} id={String(i)} textValue={name}>
              <PathSketch look={looks[i]} isChosen={chosen.has(i)} />
              <RowName>{name}</RowName>
              <RowFigure>{lengthInWords(looks[i].length, times)}</RowFigure>
            </Row>
          ))}
        </RowList>
        <Buttons>
          {paths.length > rows && (
            <Button onPress={() => setRows(rows + ROWS)}>
              Show {Math.min(ROWS, paths.length - rows)} more
            </Button>
          )}
          {paths.length > 1 && (
            <Button
              onPress={() => {
                const all = Array.from({ length: Math.min(free, paths.length) }, (_, i) => i);
                change({ chosen: new Set(chosen.size > 0 ? [] : all) });
              }}
            >
              {chosen.size > 0 ? 'Choose none' : 'Choose all'}
            </Button>
          )}
        </Buttons>
        {chosen.size > free && (
          <Hint role="alert">
            {chosen.size} are chosen; {free} more fit into this shot.
          </Hint>
        )}
      </Section>
      <Section>
        <SectionTitle>Size</SectionTitle>
        <Select
          label="A unit of the file is a"
          options={units.map(({ id, name }) => ({ id, name }))}
          value={unit.id}
          onChange={(id) => {
            const wanted = units.find((one) => one.id === id);
            if (wanted) resize(withUnit(importing, wanted.metres));
          }}
        />
        <FieldPair>
          <QuantityField
            label="That is"
            kind="length"
            min={1e-9}
            max={1e6}
            digits={6}
            value={metres}
            onChange={(value) => resize(withUnit(importing, value))}
          />
          {longest > 0 && (
            <QuantityField
              label="The longest"
              kind="length"
              min={1e-3}
              max={1e6}
              value={longest * times}
              onChange={(value) => resize({ ...importing, times: value / longest })}
            />
          )}
        </FieldPair>
        <Hint>Or drag its corner over the ground.</Hint>
        <Buttons>
          <PrimaryButton
            isDisabled={chosen.size === 0 || chosen.size > free}
            onPress={() => {
              try {
                take(desk, file, chosenOf(importing));
                end();
              } catch (error) {
                notify('error', sentenceOf(error));
              }
            }}
          >
            Add {chosen.size} {chosen.size === 1 ? 'path' : 'paths'}
          </PrimaryButton>
          <CancelButton onCancel={end} />
        </Buttons>
      </Section>
    </>
  );
}

const lengthInWords = (length: number | null, times: number): string =>
  length === null ? 'no curve' : `${showNumber(length * times, length * times < 10 ? 2 : 1)} m`;

/** A path in plan, as large as there is room. */
function PathSketch({ look: { line }, isChosen }: { look: ImportLook; isChosen: boolean }) {
  const theme = useTheme();
  const { points, box } = useMemo(() => {
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    const all: string[] = [];
    const step = 3 * Math.max(1, Math.floor(line.length / 3 / SKETCHED));
    for (let i = 0; i < line.length; i += step) {
      const [x, y] = [line[i], line[i + 2]];
      [left, top, right, bottom] = [
        Math.min(left, x),
        Math.min(top, y),
        Math.max(right, x),
        Math.max(bottom, y),
      ];
      all.push(`${x},${y}`);
    }
    const margin = 0.08 * Math.max(right - left, bottom - top, 1e-6);
    const sides = [left - margin, top - margin, right - left + 2 * margin, bottom - top + 2 * margin];
    return { points: all.join(' '), box: sides.every(Number.isFinite) ? sides.join(' ') : '0 0 1 1' };
  }, [line]);
  return (
    <Sketch viewBox={box} aria-hidden>
      <polyline
        points={points}
        fill="none"
        stroke={isChosen ? theme.signal : theme.quiet}
        strokeWidth={1.6}
        vectorEffect="non-scaling-stroke"
      />
    </Sketch>
  );
}
