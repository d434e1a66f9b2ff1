import {
  POSE,
  ownAxes,
  pointOn,
  type Rider,
  type SampledGauge,
  type Vec3,
  type Wheel,
} from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { EvaluatedRider, Evaluation } from '../../workers/evaluation/evaluation';
import { poseAt } from '../../workers/evaluation/pose-at';
import type { Theme } from '../../ui/theme/theme';

/** Height of marks above the ground, metres: over ribbons, which are lifted by less, from near and far alike. */
const ABOVE = 0.04;
/** A wheel's chalked stripe is as much of its rim; it prints a dash with every turn. */
const STRIPE = 0.25;
const DASH_WIDTH = 0.05;
const FOOT = { length: 0.26, width: 0.1 };
/** A foot that slides further while it is down leaves a smear, metres. */
const SMEAR = 0.001;
/** Dashes are drawn by steps of this much of a turn. */
const STEP = 0.05;

/**
 * Traces of wheels and feet on the ground, as corners of triangles: the dash that a chalked stripe prints with every
 * turn (as long as the stripe, if the wheel does not slide), and a print for each planted foot.
 */
export function chalkMarks(
  rider: Rider,
  evaluation: Evaluation,
  evaluated: EvaluatedRider,
): { marks: number[]; smears: number[] } {
  const marks: number[] = [];
  const smears: number[] = [];
  const { gauges, plants } = evaluated;
  const pose = new Float64Array(POSE.size);
  const poseOf = (sample: number): Float64Array => {
    poseAt(evaluation, evaluated, evaluation.first + sample * evaluation.step, pose);
    return pose;
  };
  const turns = gauges.filter(({ kind }) => kind === 'turns');
  rider.wheels.forEach((wheel, i) => {
    if (i < turns.length) for (const dash of dashes(turns[i])) addDash(rider, wheel, poseOf, dash, marks);
  });
  const axes = ownAxes(rider);
  const size = axes.scale[0];
  for (const { position, turn, left } of plants) {
    addPrint(position, turn, size, marks);
    if (left <= SMEAR) continue;
    const way: Vec3 = [Math.sin(turn), 0, Math.cos(turn)];
    addStrip(
      position.map((value, k) => value - (left / 2) * way[k]) as Vec3,
      position.map((value, k) => value + (left / 2) * way[k]) as Vec3,
      [way[2], 0, -way[0]],
      0.02,
      smears,
    );
  }
  return { marks, smears };
}

/** Stretches of samples over which a wheel's stripe is on the ground. */
function dashes({ values }: SampledGauge): [number, number][] {
  const found: [number, number][] = [];
  for (let i = 0; i + 1 < values.length; i++) {
    const [a, b] = [values[i], values[i + 1]];
    const rolled = b - a;
    if (Math.abs(rolled) < 1e-9) continue;
    const [low, high] = [Math.min(a, b), Math.max(a, b)];
    for (let turn = Math.floor(low); turn <= Math.floor(high); turn++) {
      const from = Math.max(low, turn);
      const to = Math.min(high, turn + STRIPE);
      if (to > from) found.push([i + (from - a) / rolled, i + (to - a) / rolled]);
    }
  }
  return found.map(([from, to]) => (from < to ? [from, to] : [to, from]));
}

function addDash(
  rider: Rider,
  { centre, radius }: Wheel,
  poseOf: (sample: number) => Float64Array,
  [from, to]: [number, number],
  out: number[],
): void {
  const axes = ownAxes(rider);
  const own = centre.map((value, k) => (value - radius * axes.up[k]) * rider.rest.scale[k]) as Vec3;
  const parts = Math.max(1, Math.min(4, Math.ceil((to - from) / STEP)));
  const side: Vec3 = [0, 0, 0];
  const at = (sample: number): Vec3 => {
    const pose = poseOf(sample);
    const base = pointOn(pose, own, [0, 0, 0]);
    pointOn(pose, own.map((value, k) => value + axes.left[k]) as Vec3, side);
    for (let k = 0; k < 3; k++) side[k] -= base[k];
    return base;
  };
  for (let i = 0; i < parts; i++) {
    const a = at(from + ((to - from) * i) / parts);
    const b = at(from + ((to - from) * (i + 1)) / parts);
    addStrip(a, b, side, DASH_WIDTH, out);
  }
}

function addStrip(a: Vec3, b: Vec3, side: Vec3, width: number, out: number[]): void {
  const corner = (place: Vec3, sign: number) => [
    place[0] + (sign * width * side[0]) / 2,
    place[1] + ABOVE + (sign * width * side[1]) / 2,
    place[2] + (sign * width * side[2]) / 2,
  ];
  const [p, q, r, s] = [corner(a, 1), corner(a, -1), corner(b, 1), corner(b, -1)];
  out.push(...p, ...q, ...r, ...r, ...q, ...s);
}

/** A print as a heel and a broader sole, its toe the way the walker is turned. */
function addPrint([x, y, z]: Vec3, turn: number, size: number, out: number[]): void {
  const [sin, cos] = [Math.sin(turn), Math.cos(turn)];
  const outline = [
    [-0.3, 0.3],
    [0.1, 0.4],
    [0.5, 0.5],
    [0.7, 0.25],
    [0.7, -0.25],
    [0.5, -0.5],
    [0.1, -0.4],
    [-0.3, -0.3],
  ].map(([ahead, left]) => {
    const [f, l] = [ahead * FOOT.length * size, left * FOOT.width * size];
    return [x + f * sin + l * cos, y + ABOVE, z + f * cos - l * sin];
  });
  for (let i = 1; i + 1 < outline.length; i++) out.push(...outline[0], ...outline[i], ...outline[i + 1]);
}

/** Chalk marks of the selected rider on the stage. */
export class ChalkMarks {
  readonly object = new THREE.Group();
  private readonly marks = sheet();
  private readonly smears = sheet();
  private inputs: readonly unknown[] = [];

  constructor() {
    this.object.add(this.marks, this.smears);
  }

  show(rider: Rider | null, evaluation: Evaluation | null, theme: Theme): void {
    const evaluated = rider === null ? undefined : evaluation?.riders.get(rider.id);
    const inputs = [rider, evaluated, theme];
    if (inputs.every((input, i) => input === this.inputs[i])) return;
    this.inputs = inputs;
    this.object.visible = rider !== null && evaluated !== undefined;
    if (rider === null || evaluation === null || evaluated === undefined) return;
    const { marks, smears } = chalkMarks(rider, evaluation, evaluated);
    fill(this.marks, marks, theme.ink);
    fill(this.smears, smears, theme.signal);
  }

  dispose(): void {
    for (const mesh of [this.marks, this.smears]) {
      mesh.geometry.dispose();
      mesh.material.dispose();
    }
  }
}

function sheet(): THREE.Mesh<THREE.BufferGeometry, THREE.MeshBasicMaterial> {
  const material = new THREE.MeshBasicMaterial({
    side: THREE.DoubleSide,
    transparent: true,
    opacity: 0.8,
    depthWrite: false,
    polygonOffset: true,
    polygonOffsetFactor: -4,
    polygonOffsetUnits: -4,
  });
  const mesh = new THREE.Mesh(new THREE.BufferGeometry(), material);
  mesh.frustumCulled = false;
  mesh.renderOrder = ORDER.chalk;
  return mesh;
}

function fill(mesh: ReturnType<typeof sheet>, places: readonly number[], color: string): void {
  mesh.geometry.dispose();
  mesh.geometry = new THREE.BufferGeometry();
  mesh.geometry.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(places), 3));
  mesh.material.color.set(color);
  mesh.visible = places.length > 0;
}
