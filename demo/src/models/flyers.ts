import type { Vec3 } from '@fleet-rail/core';
import { ModelBuilder, type Paint } from '../model-builder.js';
import { ball, box, drum, fan, moved, turned, type Triangles } from '../shapes.js';

const RUST: Paint = [164, 92, 52];
const PALE: Paint = [226, 206, 176];
const SLATE: Paint = [92, 104, 116];
const DARK: Paint = [44, 46, 52];
const WHITE: Paint = [232, 236, 236];
const SIGNAL: Paint = [232, 150, 44];

/** The kestrel: faces +z, wings hinged at the shoulder with a hand each. */
export function makeKestrel(): ModelBuilder {
  const model = new ModelBuilder();
  const kestrel = model.node('kestrel');
  const body = model.node('body', [0, 0, 0], kestrel);
  const along = (shape: Triangles) => turned(shape, [Math.PI / 2, 0, 0]);
  body.setMesh(
    model.mesh('body', [
      { shape: along(drum(0.05, 0.34, 8, 0.1)), paint: RUST },
      { shape: moved(along(drum(0.1, 0.12, 8, 0.06)), [0, 0, 0.22]), paint: PALE },
      { shape: moved(ball(0.075, 8, 5), [0, 0.02, 0.3]), paint: SLATE },
      { shape: moved(along(drum(0.02, 0.06, 5, 0)), [0, 0.01, 0.39]), paint: DARK },
    ]),
  );
  model.node('tail', [0, 0, -0.16], body).setMesh(
    model.mesh('tail', [
      {
        shape: sheet([
          [0.04, 0, 0],
          [-0.04, 0, 0],
          [-0.1, 0, -0.32],
          [0.1, 0, -0.32],
        ]),
        paint: SLATE,
      },
    ]),
  );
  for (const [side, sign] of [
    ['left', 1],
    ['right', -1],
  ] as const) {
    const outline = (points: Vec3[]) => points.map(([x, y, z]): Vec3 => [sign * x, y, z]);
    const arm = model.node(`wing_${side}`, [sign * 0.08, 0.03, 0.1], body);
    arm.setMesh(
      model.mesh(`wing_${side}`, [
        {
          shape: sheet(
            outline([
              [0, 0, 0.06],
              [0.34, 0, 0.12],
              [0.34, 0, -0.1],
              [0, 0, -0.14],
            ]),
          ),
          paint: RUST,
        },
      ]),
    );
    const hand = model.node(`hand_${side}`, [sign * 0.34, 0, 0], arm);
    hand.setMesh(
      model.mesh(`hand_${side}`, [
        {
          shape: sheet(
            outline([
              [0, 0, 0.12],
              [0.4, 0, -0.06],
              [0.36, 0, -0.14],
              [0, 0, -0.1],
            ]),
          ),
          paint: DARK,
        },
      ]),
    );
  }
  return model;
}

/** A thin sheet, seen from both sides. */
function sheet(corners: Vec3[]): Triangles {
  return [...fan(corners), ...fan([...corners].reverse())];
}

/** The survey drone: faces +z, four rotors, a camera on a gimbal. */
export function makeDrone(): ModelBuilder {
  const model = new ModelBuilder();
  const drone = model.node('drone');
  model.node('body', [0, 0, 0], drone).setMesh(
    model.mesh('body', [
      { shape: box(0.34, 0.12, 0.46, 0.8), paint: WHITE },
      { shape: moved(box(0.2, 0.05, 0.06), [0, 0.02, 0.24]), paint: SIGNAL },
      { shape: turned(box(0.05, 0.04, 1.0), [0, Math.PI / 4, 0]), paint: SLATE },
      { shape: turned(box(0.05, 0.04, 1.0), [0, -Math.PI / 4, 0]), paint: SLATE },
    ]),
  );
  const rotor = model.mesh('rotor', [
    { shape: box(0.46, 0.015, 0.05), paint: DARK },
    { shape: drum(0.04, 0.06, 8), paint: SIGNAL },
  ]);
  for (const [end, z] of [
    ['front', 1],
    ['rear', -1],
  ] as const) {
    for (const [side, x] of [
      ['left', 1],
      ['right', -1],
    ] as const) {
      model.node(`rotor_${end}_${side}`, [x * 0.35, 0.06, z * 0.35], drone, rotor);
    }
  }
  model.node('gimbal', [0, -0.1, 0.14], drone).setMesh(
    model.mesh('gimbal', [
      { shape: ball(0.07, 8, 6), paint: DARK },
      { shape: moved(turned(drum(0.035, 0.05, 8), [Math.PI / 2, 0, 0]), [0, 0, 0.07]), paint: SLATE },
    ]),
  );
  return model;
}

/** A cider barrel: rolls about x, 0.35 m at the belly, origin at its middle. */
export function makeBarrel(): ModelBuilder {
  const model = new ModelBuilder();
  const oak: Paint = [158, 112, 66];
  const hoop: Paint = [74, 74, 78];
  const sideways = (shape: Triangles, x: number) => moved(turned(shape, [0, 0, Math.PI / 2]), [x, 0, 0]);
  model.node('barrel').setMesh(
    model.mesh('barrel', [
      { shape: sideways(drum(0.35, 0.42, 14, 0.28), -0.21), paint: oak },
      { shape: sideways(drum(0.28, 0.42, 14, 0.35), 0.21), paint: oak },
      { shape: sideways(drum(0.353, 0.06, 14), 0), paint: hoop },
      { shape: sideways(drum(0.31, 0.05, 14), -0.34), paint: hoop },
      { shape: sideways(drum(0.31, 0.05, 14), 0.34), paint: hoop },
      { shape: moved(box(0.02, 0.3, 0.08), [0.425, 0, 0]), paint: hoop },
    ]),
  );
  return model;
}
