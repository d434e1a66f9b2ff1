import type { Vec3 } from '@fleet-rail/core';
import { ModelBuilder, type Paint } from '../model-builder.js';
import { box, drum, moved, turned, type Triangles } from '../shapes.js';

const RED: Paint = [178, 58, 44];
const CREAM: Paint = [236, 226, 198];
const DARK: Paint = [44, 48, 52];
const GLASS: Paint = [120, 158, 170];
const WOOD: Paint = [150, 106, 62];
const APPLE: Paint = [190, 60, 48];
const STEEL: Paint = [130, 136, 140];

/** A tyre with a hub and a stripe, its axle along x, so that a turn can be seen. */
function wheelShapes(radius: number, width: number): { shape: Triangles; paint: Paint }[] {
  const sideways = (shape: Triangles) => turned(shape, [0, 0, Math.PI / 2]);
  return [
    { shape: sideways(drum(radius, width, 20)), paint: DARK },
    { shape: sideways(drum(radius * 0.55, width + 0.03, 10)), paint: CREAM },
    { shape: box(width + 0.05, radius * 0.9, 0.07), paint: RED },
  ];
}

/** The fruit hauler: faces +z, wheels named by place, origin on the ground under the rear axle. */
export function makeHauler(): ModelBuilder {
  const model = new ModelBuilder();
  const hauler = model.node('hauler');
  const body = model.node('body', [0, 0, 0], hauler);
  body.setMesh(
    model.mesh('body', [
      { shape: moved(box(1.7, 0.28, 4.2), [0, 0.72, 1.2]), paint: DARK },
      { shape: moved(box(1.9, 0.75, 1.5, 0.92), [0, 1.2, 2.55]), paint: RED },
      { shape: moved(box(1.8, 1.5, 1.35, 0.88), [0, 1.6, 1.15]), paint: RED },
      { shape: moved(box(1.62, 0.62, 1.42, 0.9), [0, 1.95, 1.15]), paint: GLASS },
      { shape: moved(box(1.7, 0.12, 1.5), [0, 2.4, 1.12]), paint: CREAM },
      { shape: moved(box(1.8, 0.7, 1.5), [0, 1.2, -0.2]), paint: WOOD },
      { shape: moved(box(1.6, 0.3, 1.3, 0.7), [0, 1.68, -0.2]), paint: APPLE },
      { shape: moved(box(1.95, 0.14, 0.2), [0, 0.72, 3.4]), paint: STEEL },
      { shape: moved(box(0.26, 0.22, 0.06), [0.65, 1.2, 3.31]), paint: CREAM },
      { shape: moved(box(0.26, 0.22, 0.06), [-0.65, 1.2, 3.31]), paint: CREAM },
      { shape: moved(box(0.16, 0.12, 0.5), [0, 0.6, -1.1]), paint: STEEL },
    ]),
  );
  const front = model.mesh('wheel_front', wheelShapes(0.42, 0.3));
  const rear = model.mesh('wheel_rear', wheelShapes(0.52, 0.38));
  const places: [string, Vec3, typeof front][] = [
    ['wheel_front_left', [0.85, 0.42, 2.6], front],
    ['wheel_front_right', [-0.85, 0.42, 2.6], front],
    ['wheel_rear_left', [0.85, 0.52, 0], rear],
    ['wheel_rear_right', [-0.85, 0.52, 0], rear],
  ];
  for (const [name, place, mesh] of places) model.node(name, place, hauler, mesh);
  // It turns about its own +z, which points to the driver: back and up.
  const tilt = -2.04;
  model
    .node('steering_wheel', [0.4, 1.75, 1.65], body)
    .setRotation([Math.sin(tilt / 2), 0, 0, Math.cos(tilt / 2)])
    .setMesh(
      model.mesh('steering_wheel', [
        { shape: turned(drum(0.2, 0.04, 12), [Math.PI / 2, 0, 0]), paint: DARK },
        { shape: box(0.36, 0.05, 0.05), paint: STEEL },
      ]),
    );
  model.node('hitch', [0, 0.6, -1.35], hauler);
  return model;
}

/** A trailer of the hauler: crates of apples on two axles; its drawbar reaches 1.75 m ahead of the origin. */
export function makeTrailer(): ModelBuilder {
  const model = new ModelBuilder();
  const trailer = model.node('trailer');
  const crate = (z: number) => [
    { shape: moved(box(1.6, 0.75, 1.1), [0, 1.1, z]), paint: WOOD },
    { shape: moved(box(1.45, 0.25, 0.95, 0.75), [0, 1.58, z]), paint: APPLE },
  ];
  model
    .node('bed', [0, 0, 0], trailer)
    .setMesh(
      model.mesh('bed', [
        { shape: moved(box(1.7, 0.16, 2.8), [0, 0.64, 0]), paint: STEEL },
        { shape: moved(box(0.12, 0.1, 0.45), [0, 0.6, 1.55]), paint: DARK },
        ...crate(0.65),
        ...crate(-0.65),
      ]),
    );
  const wheel = model.mesh('wheel', wheelShapes(0.36, 0.22));
  for (const [end, z] of [
    ['front', 0.95],
    ['rear', -0.95],
  ] as const) {
    model.node(`wheel_${end}_left`, [0.8, 0.36, z], trailer, wheel);
    model.node(`wheel_${end}_right`, [-0.8, 0.36, z], trailer, wheel);
  }
  model.node('hitch_front', [0, 0.6, 1.75], trailer);
  model.node('hitch_rear', [0, 0.6, -1.55], trailer);
  return model;
}
