import { PathError, compiledPathOf, type CompiledPath, type ShotPath, type Vec3 } from '@fleet-rail/core';
import { BRIDGE_HEIGHT } from '../paths.js';
import { ModelBuilder, type Paint } from '../model-builder.js';
import { ball, box, drum, fan, moved, turned, type Triangles } from '../shapes.js';

const GRASS: Paint = [150, 168, 128];
const LANE: Paint = [196, 182, 152];
const LEAF: Paint = [96, 134, 84];
const BARK: Paint = [110, 84, 62];
const TIMBER: Paint = [134, 98, 66];
const STONE: Paint = [158, 154, 144];
const BARN: Paint = [150, 72, 56];
const ROOF: Paint = [92, 88, 86];
const DECK: Paint = [172, 140, 100];
const LANE_WIDTH = 4.2;

/** From which height on the lane is the level lane, its ramp, and the deck of the bridge. */
const LANE_HEIGHTS = { lane: -Infinity, ramp: 0.05, bridge: BRIDGE_HEIGHT * 0.85 };

/** The ground of the orchard: grass, the lane with its ramp and footbridge, trees in rows, the cider barn. */
export function makeOrchard(lane: ShotPath): ModelBuilder {
  const curve = compiledPathOf(lane);
  if (curve instanceof PathError) throw curve;
  const model = new ModelBuilder();
  const orchard = model.node('orchard');
  model.node('grass', [0, -0.06, 0], orchard).setMesh(
    model.mesh('grass', [
      {
        shape: fan([
          [-52, 0, -34],
          [-52, 0, 34],
          [56, 0, 34],
          [56, 0, -34],
        ]),
        paint: GRASS,
      },
    ]),
  );
  const strip = (low: number, high: number, paint: Paint) => ({ shape: laneStrip(curve, low, high), paint });
  const { lane: level, ramp, bridge } = LANE_HEIGHTS;
  model.node('lane', [0, 0, 0], orchard).setMesh(model.mesh('lane', [strip(level, ramp, LANE)]));
  model.node('ramp', [0, 0, 0], orchard).setMesh(model.mesh('ramp', [strip(ramp, bridge, LANE)]));
  model
    .node('footbridge', [0, 0, 0], orchard)
    .setMesh(model.mesh('footbridge', [strip(bridge, Infinity, DECK), ...bridgeParts(curve)]));
  addTrees(model, orchard, curve);
  addBarn(model, orchard);
  addChutes(model, orchard);
  return model;
}

/** The strip of the lane where its height is from `low` up to `high`. */
function laneStrip(curve: CompiledPath, low: number, high: number): Triangles {
  const steps = 260;
  const edges = Array.from({ length: steps + 1 }, (_, i) => laneEdges(curve, (curve.length * i) / steps));
  return edges.slice(1).flatMap(([left, right], i) => {
    const [leftBefore, rightBefore] = edges[i];
    const height = (left[1] + leftBefore[1]) / 2;
    return height >= low && height < high ? fan([leftBefore, rightBefore, right, left]) : [];
  });
}

/** Left and right edge of the lane at a distance, a hand's breadth under the path. */
function laneEdges(curve: CompiledPath, distance: number): [Vec3, Vec3] {
  const frame = new Float64Array(12);
  curve.frame(distance, frame, 0);
  const edge = (side: number): Vec3 => [
    frame[0] + side * frame[3],
    frame[1] + side * frame[4] - 0.02,
    frame[2] + side * frame[5],
  ];
  return [edge(LANE_WIDTH / 2), edge(-LANE_WIDTH / 2)];
}

/** Piers and railings where the lane is high; open below, so that it passes under itself. */
function bridgeParts(curve: CompiledPath): { shape: Triangles; paint: Paint }[] {
  const parts: { shape: Triangles; paint: Paint }[] = [];
  const frame = new Float64Array(12);
  for (let s = 0; s < curve.length; s += 1.5) {
    curve.frame(s, frame, 0);
    const height = frame[1];
    if (height < 0.5) continue;
    const yaw = Math.atan2(frame[9], frame[11]);
    for (const side of [1.75, -1.75]) {
      const place: Vec3 = [frame[0] + side * frame[3], height + 0.4, frame[2] + side * frame[5]];
      parts.push({ shape: moved(turned(box(0.1, 0.8, 0.1), [0, yaw, 0]), place), paint: TIMBER });
      parts.push({
        shape: moved(turned(box(0.08, 0.08, 1.55), [0, yaw, 0]), [place[0], height + 0.8, place[2]]),
        paint: TIMBER,
      });
      const overLane = Math.hypot(place[0], place[2]) < 5 && height > BRIDGE_HEIGHT * 0.6;
      if (!overLane) {
        parts.push({
          shape: moved(box(0.35, height - 0.05, 0.35), [place[0], (height - 0.05) / 2, place[2]]),
          paint: STONE,
        });
      }
    }
  }
  return parts;
}

function addTrees(model: ModelBuilder, orchard: ReturnType<ModelBuilder['node']>, curve: CompiledPath): void {
  const tree = model.mesh('tree', [
    { shape: moved(drum(0.16, 1.2, 6, 0.12), [0, 0.6, 0]), paint: BARK },
    { shape: moved(ball(1.05, 8, 5), [0, 1.9, 0]), paint: LEAF },
    { shape: moved(ball(0.7, 7, 5), [0.45, 2.5, 0.3]), paint: LEAF },
  ]);
  const trees = model.node('trees', [0, 0, 0], orchard);
  const clear = nearestDistance(curve);
  for (let row = 0; row < 9; row++) {
    for (let place = 0; place < 15; place++) {
      const x = -45 + place * 6;
      const z = -28 + row * 7;
      const inBarn = x > 36 && Math.abs(z) < 12;
      if (clear(x, z) < 4 || inBarn || Math.abs(z) < 2) continue;
      model
        .node(`tree_${row + 1}_${place + 1}`, [x, 0, z], trees, tree)
        .setRotation(turn(row * 5 + place * 3));
    }
  }
}

const turn = (n: number): [number, number, number, number] => [0, Math.sin(n / 2), 0, Math.cos(n / 2)];

function nearestDistance(curve: CompiledPath): (x: number, z: number) => number {
  const places: Vec3[] = [];
  for (let s = 0; s < curve.length; s += 0.5) {
    const place: Vec3 = [0, 0, 0];
    curve.position(s, place);
    places.push(place);
  }
  return (x, z) => Math.min(...places.map((p) => Math.hypot(p[0] - x, p[2] - z)));
}

function addBarn(model: ModelBuilder, orchard: ReturnType<ModelBuilder['node']>): void {
  const barn = model.node('cider_barn', [45, 0, 0], orchard);
  const gable = (x: number, facing: 1 | -1): Triangles => {
    const corners: Vec3[] = [
      [x, 4.2, -6],
      [x, 7, 0],
      [x, 4.2, 6],
    ];
    return fan(facing === 1 ? corners : corners.reverse());
  };
  barn.setMesh(
    model.mesh('barn', [
      { shape: moved(box(0.3, 4.2, 3.6), [-5, 2.1, -4.2]), paint: BARN },
      { shape: moved(box(0.3, 4.2, 3.6), [-5, 2.1, 4.2]), paint: BARN },
      { shape: moved(box(0.3, 4.2, 12), [5, 2.1, 0]), paint: BARN },
      { shape: moved(box(10, 4.2, 0.3), [0, 2.1, -6]), paint: BARN },
      { shape: moved(box(10, 4.2, 0.3), [0, 2.1, 6]), paint: BARN },
      { shape: moved(box(0.3, 0.6, 4.8), [-5, 3.9, 0]), paint: TIMBER },
      { shape: [...gable(-5, -1), ...gable(-4.9, 1), ...gable(5, 1)], paint: BARN },
      {
        shape: [
          ...fan([
            [-5.4, 7.1, 0],
            [-5.4, 4, 6.6],
            [5.4, 4, 6.6],
            [5.4, 7.1, 0],
          ]),
          ...fan([
            [-5.4, 4, -6.6],
            [-5.4, 7.1, 0],
            [5.4, 7.1, 0],
            [5.4, 4, -6.6],
          ]),
        ],
        paint: ROOF,
      },
    ]),
  );
}

/** Two chutes side by side, one for barrels that are timed and one for those that roll loose. */
function addChutes(model: ModelBuilder, orchard: ReturnType<ModelBuilder['node']>): void {
  const slope = Math.atan2(2.4, 9);
  const chute = model.mesh('chute', [
    { shape: turned(box(1.6, 0.12, 9.4), [slope, 0, 0]), paint: TIMBER },
    { shape: moved(turned(box(0.08, 0.3, 9.4), [slope, 0, 0]), [0.8, 0.12, 0]), paint: TIMBER },
    { shape: moved(turned(box(0.08, 0.3, 9.4), [slope, 0, 0]), [-0.8, 0.12, 0]), paint: TIMBER },
  ]);
  model.node('chute', [45, 1.3, -14], orchard, chute);
  model.node('loose_chute', [42.9, 1.3, -14], orchard, chute);
}

/** The barn's gate as a model of its own, so that it can move: two leaves, each turning about its hinge post. */
export function makeGate(): ModelBuilder {
  const model = new ModelBuilder();
  const gate = model.node('gate');
  const leaf = (sign: number) =>
    model.mesh('gate', [
      { shape: moved(box(0.12, 3.4, 2.35), [0, 1.75, sign * 1.18]), paint: TIMBER },
      {
        shape: moved(turned(box(0.14, 0.16, 3.6), [sign * 0.95, 0, 0]), [0, 1.75, sign * 1.18]),
        paint: STONE,
      },
    ]);
  model.node('gate_left', [-5.1, 0, -2.4], gate, leaf(1));
  model.node('gate_right', [-5.1, 0, 2.4], gate, leaf(-1));
  return model;
}
