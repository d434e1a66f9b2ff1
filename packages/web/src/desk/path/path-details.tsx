import type { ShotPath } from '@fleet-rail/core';
import { ArrowLeftRight } from 'lucide-react';
import styled from 'styled-components';
import { placePathPoint, renamePath, turnPathRound } from '../../edits/path-edits';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/fields';
import { Buttons, FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { Row, RowFigure, RowList, RowName } from '../../ui/row-list';
import { useDesk } from '../desk-store';

const BASIS_NAMES: Record<ShotPath['basis'], string> = {
  bezier: 'Bézier',
  bspline: 'B-spline',
  nurbs: 'NURBS',
  through: 'Through points',
  polyline: 'Straight runs',
};

const Coordinate = styled(RowFigure)`
  width: 62px;
  padding-right: 6px;
  text-align: right;
`;

const AXES = ['X', 'Y (height)', 'Z'] as const;

/** The selected path: its name, direction and points. */
export function PathDetails({ path }: { path: ShotPath }) {
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const points = useDesk((state) => state.points);
  const problem = useDesk((state) => state.evaluation?.paths.get(path.id)?.problem);
  const index = points.size === 1 ? [...points][0] : null;
  const point = index === null ? undefined : path.points[index];
  return (
    <>
      <Section>
        <TextField
          label="Name"
          value={path.name}
          maxLength={200}
          onChange={(name) =>
            name.trim() !== '' && edit('Rename path', renamePath(path.id, name), `rename ${path.id}`)
          }
        />
        <Hint>
          {BASIS_NAMES[path.basis]}, {path.closed ? 'closed' : 'open'}, {path.points.length} points
        </Hint>
        {problem && <Hint role="alert">{problem}</Hint>}
        <Buttons>
          <Button
            onPress={() => edit('Reverse path', turnPathRound(path.id))}
            isDisabled={path.points.length < 2}
          >
            <ArrowLeftRight aria-hidden /> Reverse
          </Button>
        </Buttons>
      </Section>
      <Section>
        <SectionTitle>Points</SectionTitle>
        <Hint>Drag a point over the ground, or its head to lift it.</Hint>
        {point && index !== null && (
          <FieldGrid>
            {AXES.map((axis, k) => (
              <QuantityField
                key={axis}
                label={axis}
                kind="length"
                value={point.position[k]}
                min={-1e7}
                max={1e7}
                step={0.1}
                onChange={(value, gesture) => {
                  const position: typeof point.position = [...point.position];
                  position[k] = value;
                  edit('Move point', placePathPoint(path.id, index, position), gesture);
                }}
              />
            ))}
          </FieldGrid>
        )}
        <RowList
          aria-label="Points"
          selectionMode="single"
          selectionBehavior="replace"
          selectedKeys={index === null ? [] : [index]}
          onSelectionChange={(keys) => keys !== 'all' && set({ points: new Set([...keys].map(Number)) })}
        >
          {path.points.slice(0, 400).map(({ position, off }, i) => (
            <Row key={i} id={i} textValue={`Point ${i + 1}`}>
              <RowName>
                {i + 1}
                {off ? ' (off)' : ''}
              </RowName>
              {position.map((value, k) => (
                <Coordinate key={k}>{showNumber(value, 2)}</Coordinate>
              ))}
            </Row>
          ))}
        </RowList>
        {path.points.length > 400 && (
          <Hint>The first 400 of {path.points.length} are listed; pick others on the stage.</Hint>
        )}
      </Section>
    </>
  );
}
