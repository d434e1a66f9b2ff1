/** @jest-environment jsdom */
import { compilePath, newShot, type PathPoint, type ShotPath, type Vec3 } from '@fleet-rail/core';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { ThemeProvider } from 'styled-components';
import { DAY } from '../../ui/theme/theme';
import { createDesk, DeskContext } from '../../state/desk-store';
import { ShapeCard } from './shape-card';

/** Every shape with its measures and the value each is given once; `size` reads the measure back off the path's points. */
const SHAPES: readonly {
  name: string;
  fields: Record<string, { typed: number; size: (points: readonly PathPoint[], path: ShotPath) => number }>;
}[] = [
  { name: 'Line', fields: { Length: { typed: 40, size: (points) => span(points, 0) + span(points, 2) } } },
  { name: 'Circle', fields: { Radius: { typed: 12, size: (points) => span(points, 0) / 2 } } },
  {
    name: 'Ellipse',
    fields: {
      'Width (X)': { typed: 30, size: (points) => span(points, 0) },
      'Depth (Z)': { typed: 9, size: (points) => span(points, 2) },
    },
  },
  {
    name: 'Helix',
    fields: {
      Radius: { typed: 8, size: (points) => span(points, 0) / 2 },
      Turns: { typed: 5, size: (points) => span(points, 1) / 3 },
      'Climb per turn': { typed: 2, size: (points) => span(points, 1) / 3 },
    },
  },
  {
    name: 'Rounded rectangle',
    fields: {
      'Width (X)': { typed: 30, size: (points) => span(points, 0) },
      'Depth (Z)': { typed: 18, size: (points) => span(points, 2) },
      // The straight part along X ends where the corner begins.
      Radius: { typed: 3, size: (points) => (span(points, 0) - straightAlongX(points)) / 2 },
    },
  },
  {
    name: 'Figure of eight',
    fields: {
      Length: { typed: 50, size: (points) => span(points, 2) },
      'Width (X)': { typed: 16, size: (_, path) => curveSpan(path, 0) },
      'Bridge height': { typed: 6, size: (points) => span(points, 1) },
    },
  },
];

const span = (points: readonly PathPoint[], axis: number) => {
  const values = points.map(({ position }) => position[axis]);
  return Math.max(...values) - Math.min(...values);
};

/** The extent of the curve itself, which bulges beyond its points. */
function curveSpan(path: ShotPath, axis: number): number {
  const curve = compilePath(path);
  const place: Vec3 = [0, 0, 0];
  const values = Array.from({ length: 4001 }, (_, i) => {
    curve.position((curve.length * i) / 4000, place);
    return place[axis];
  });
  return Math.max(...values) - Math.min(...values);
}

function straightAlongX(points: readonly PathPoint[]): number {
  const near = Math.min(...points.map(({ position }) => position[2]));
  const edge = points.filter(({ position }) => Math.abs(position[2] - near) < 1e-9);
  return span(edge, 0);
}

function openCard() {
  const desk = createDesk(newShot({ name: 'Shapes' }));
  render(
    <ThemeProvider theme={DAY}>
      <DeskContext value={desk}>
        <ShapeCard onDone={() => undefined} />
      </DeskContext>
    </ThemeProvider>,
  );
  return desk;
}

/** Types a value and takes it up by Enter or by leaving the field. */
function type(label: string, value: number, end: 'Enter' | 'Tab') {
  const field = screen.getByLabelText(label);
  fireEvent.change(field, { target: { value: String(value) } });
  if (end === 'Enter') fireEvent.keyDown(field, { key: 'Enter' });
  else fireEvent.blur(field);
}

afterEach(cleanup);

const cases = SHAPES.flatMap(({ name, fields }) =>
  Object.entries(fields).flatMap(([label, field]) =>
    [1, 2, 3].map((changes) => ({ name, label, changes, ...field })),
  ),
);

it.each(cases)(
  '$name stays one path and one step after $changes changes of its $label',
  ({ name, label, changes, typed, size }) => {
    const desk = openCard();
    fireEvent.click(screen.getByRole('button', { name }));
    for (let change = 1; change <= changes; change++) {
      const value = typed + (changes - change) / 2;
      type(label, value, change % 2 === 1 ? 'Enter' : 'Tab');
      const { paths } = desk.getState().shot;
      expect(paths.map((path) => path.name)).toEqual([name]);
      expect(size(paths[0].points, paths[0])).toBeCloseTo(value, 3);
    }
    const { shot, undo, redo } = desk.getState();
    expect(shot.paths).toHaveLength(1);
    undo();
    expect(desk.getState().shot.paths).toEqual([]);
    redo();
    expect(desk.getState().shot).toBe(shot);
  },
);

it('its middle moves it, once, twice and three times', () => {
  const desk = openCard();
  fireEvent.click(screen.getByRole('button', { name: 'Circle' }));
  for (const [label, value, axis] of [
    ['Middle X', 7, 0],
    ['Middle Y', 2, 1],
    ['Middle Z', -4, 2],
  ] as const) {
    type(label, value, 'Enter');
    const [{ points }] = desk.getState().shot.paths;
    const mean = points.reduce((sum, { position }) => sum + position[axis], 0) / points.length;
    expect(mean).toBeCloseTo(value, 9);
  }
  desk.getState().undo();
  expect(desk.getState().shot.paths).toEqual([]);
});
