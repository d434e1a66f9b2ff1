// Speed and exactness against three on the same work in the same run: run it twice before believing it.
import { readFileSync } from 'node:fs';
import { line as lineShape } from 'd3-shape';
import { Document, WebIO } from '@gltf-transform/core';
import { CatmullRomCurve3, Vector3 } from 'three';
import { hierarchyOf, readModel } from '@fleet-rail/core/formats';
import {
  GroundSurface,
  NO_ASSETS,
  POSE,
  beginRiddenPathAt,
  compilePace,
  compilePath,
  crossings,
  detachHere,
  evaluateShot,
  joinRiddenPaths,
  newAttachment,
  newShot,
  parseShot,
  pathFacts,
  ribbonFrames,
  sampleParts,
  sampleRider,
  sampleShot,
} from '@fleet-rail/core';
import { benchBounds } from './bench-bounds.mjs';
import { benchBuilt } from './bench-built.mjs';
import { benchChecks } from './bench-checks.mjs';
import { benchFiles } from './bench-files.mjs';
import { benchAlone, benchLive } from './bench-live.mjs';
import { benchPage } from './bench-page.mjs';
import { benchServer } from './bench-server.mjs';
import { benchWaits } from './bench-waits.mjs';

const QUERIES = 200_000;
const ROUNDS = 7;

const points = Array.from({ length: 16 }, (_, i) => {
  const a = (2 * Math.PI * i) / 16;
  // Unevenly far apart, as points are that a person clicked.
  const reach = 20 + 9 * Math.sin(3 * a) + (i % 3) * 2;
  return [reach * Math.cos(a + 0.12 * (i % 4)), 2 * Math.sin(2 * a), reach * Math.sin(a + 0.12 * (i % 4))];
});
const shot = newShot({
  name: 'bench',
  paths: [
    { id: 'p', name: 'P', basis: 'through', closed: true, points: points.map((position) => ({ position })) },
  ],
});
const ours = compilePath(shot.paths[0]);
const theirs = new CatmullRomCurve3(
  points.map((p) => new Vector3(...p)),
  true,
  'centripetal',
);
theirs.getLength();

/** Milliseconds of the quickest of several rounds. */
function quickest(work, rounds = ROUNDS) {
  let best = Infinity;
  for (let round = 0; round < rounds; round++) {
    const start = performance.now();
    work();
    best = Math.min(best, performance.now() - start);
  }
  return best;
}

const ourOut = new Float64Array(12 * QUERIES);
const oursMs = quickest(() => {
  const step = ours.length / QUERIES;
  for (let i = 0; i < QUERIES; i++) ours.frame(i * step, ourOut, 12 * i);
});

const theirOut = new Float64Array(6 * QUERIES);
const place = new Vector3();
const tangent = new Vector3();
const theirsMs = quickest(() => {
  for (let i = 0; i < QUERIES; i++) {
    theirs.getPointAt(i / QUERIES, place);
    theirs.getTangentAt(i / QUERIES, tangent);
    const at = 6 * i;
    theirOut[at] = place.x;
    theirOut[at + 1] = place.y;
    theirOut[at + 2] = place.z;
    theirOut[at + 3] = tangent.x;
    theirOut[at + 4] = tangent.y;
    theirOut[at + 5] = tangent.z;
  }
});

/**
 * How far places that should be evenly spaced are from where they should be, metres: the longest
 * difference between the length walked to a place and its share of the whole. Walked in chords of
 * the curve's own parameter, which neither side's tables take part in.
 */
function spacingError(out, stride) {
  const steps = 500;
  const perStep = QUERIES / steps;
  let worst = 0;
  const lengths = [];
  for (let n = 0; n < steps; n++) {
    const chord = (every) => {
      let sum = 0;
      for (let i = n * perStep; i < (n + 1) * perStep; i += every) {
        const a = stride * i;
        const b = stride * ((i + every) % QUERIES);
        sum += Math.hypot(out[b] - out[a], out[b + 1] - out[a + 1], out[b + 2] - out[a + 2]);
      }
      return sum;
    };
    lengths.push((4 * chord(1) - chord(2)) / 3);
  }
  const whole = lengths.reduce((sum, length) => sum + length, 0);
  let walked = 0;
  lengths.forEach((length, n) => {
    walked += length;
    worst = Math.max(worst, Math.abs(walked - (whole * (n + 1)) / steps));
  });
  return worst;
}

// Both run through the same curve: the same parameter gives the same place.
let apart = 0;
for (let i = 0; i < 16; i++) {
  const at = theirs.getPoint(i / 16);
  apart = Math.max(apart, Math.hypot(at.x - points[i][0], at.y - points[i][1], at.z - points[i][2]));
}

/** A path of many points as a person, or a file, might have them: a winding round, unevenly spaced. */
function windingPath(count, basis, radius = 500) {
  const places = Array.from({ length: count }, (_, i) => {
    const a = (2 * Math.PI * (i + 0.3 * Math.sin(i))) / count;
    const reach = radius * (1 + 0.12 * Math.sin(9 * a)) + 0.1 * (i % 3);
    const position = [reach * Math.cos(a), 3 * Math.sin(7 * a), reach * Math.sin(a)];
    return { position, handles: 'auto', weight: 1 + 0.3 * (i % 2) };
  });
  const parts = { id: 'p', name: 'P', basis, closed: true, points: places };
  return newShot({ name: 'winding', paths: [parts] }).paths[0];
}

const alone = await benchAlone({ quickest, windingPath });

const BASES = ['bezier', 'through', 'bspline', 'polyline', 'nurbs'];
const compiling = BASES.map((basis) => {
  const path = windingPath(5_000, basis);
  return [basis, quickest(() => compilePath(path))];
});

// An edit of one point: all that is computed before ribbon, riders and diagram can be drawn anew.
const range = { first: 1, last: 240 };
const dragged = newShot({
  name: 'drag',
  range,
  paths: [windingPath(500, 'bezier')],
  riders: [1, 2, 3].map((n) => ({ id: `r${n}`, name: 'R', attachment: newAttachment('p', range) })),
});
let nudge = 0;
const poses = new Float64Array(240 * POSE.size);
const editMs = quickest(() => {
  nudge += 0.1;
  const [path] = dragged.paths;
  const points = path.points.map((point, i) =>
    i === 250 ? { ...point, position: [point.position[0], nudge, point.position[2]] } : point,
  );
  const evaluated = evaluateShot({ ...dragged, paths: [{ ...path, points }] }, NO_ASSETS);
  const curve = evaluated.paths.get('p');
  ribbonFrames(curve);
  pathFacts(curve);
  for (const pose of evaluated.poses) for (let i = 0; i < 240; i++) pose(1 + i, poses, i * POSE.size);
});

// Many riders: what the worker computes when a shot is opened, and when one rider of it is edited.
const crowdRange = { first: 1, last: 600 };
const crowd = newShot({
  name: 'crowd',
  range: crowdRange,
  paths: Array.from({ length: 20 }, (_, n) => ({ ...windingPath(60, 'through', 40), id: `p${n}` })),
  riders: Array.from({ length: 200 }, (_, n) => ({
    id: `r${n}`,
    name: `R${n}`,
    attachment: {
      ...newAttachment(`p${n % 20}`, crowdRange),
      offset: { along: -n, side: n % 3 },
      bank: { mode: 'physical' },
      // Every tenth aims at its neighbour, with a dead zone and damping.
      facing:
        n % 10 === 9
          ? { mode: 'aim', target: { rider: `r${n - 1}` }, aim: { deadZone: 2, damping: 0.4 } }
          : {},
    },
  })),
});
const sampleAll = (shot) => {
  const evaluated = evaluateShot(shot, NO_ASSETS);
  for (const pose of evaluated.poses) sampleRider(pose, 1, 600, 1);
};
// Other points each time, so that curves and bends are computed anew too.
const renewed = (path) => ({ ...path, points: [...path.points] });
const crowdMs = quickest(() => sampleAll({ ...crowd, paths: crowd.paths.map(renewed) }));
let side = 0;
const oneOfCrowdMs = quickest(() => {
  side += 0.1;
  const riders = crowd.riders.map((rider, n) =>
    n === 7
      ? { ...rider, attachment: { ...rider.attachment, offset: { ...rider.attachment.offset, side } } }
      : rider,
  );
  const evaluated = evaluateShot({ ...crowd, riders }, NO_ASSETS);
  sampleRider(evaluated.poses[7], 1, 600, 1);
});

// A long string: each unit hangs behind the one before, both axles on the path.
const train = newShot({
  name: 'train',
  range: crowdRange,
  paths: [windingPath(60, 'through', 40)],
  riders: Array.from({ length: 60 }, (_, n) => ({
    id: `r${n}`,
    name: `R${n}`,
    chassis: { frontAxle: 1, rearAxle: -1, frontCoupling: 1.4, rearCoupling: -1.4 },
    attachment: {
      ...newAttachment('p', crowdRange),
      anchor: 'bothAxles',
      coupledTo: n > 0 ? { rider: `r${n - 1}` } : null,
    },
  })),
});
const trainMs = quickest(() => sampleAll(train));

// A key dragged in the run diagram of 50 riders on one path: the rider anew, its crossings with the others, and
// every rider's line of distance and of speed.
const diagramRange = { first: 1, last: 240 };
const diagram = newShot({
  name: 'diagram',
  range: diagramRange,
  paths: [windingPath(60, 'through', 40)],
  riders: Array.from({ length: 50 }, (_, n) => ({
    id: `r${n}`,
    name: `R${n}`,
    attachment: {
      ...newAttachment('p', diagramRange),
      pace: {
        keys: Array.from({ length: 6 }, (_, k) => ({ frame: 1 + 48 * k, value: 40 * k + n, ease: 'smooth' })),
      },
    },
  })),
});
const sampled = evaluateShot(diagram, NO_ASSETS).poses.map((pose) => sampleRider(pose, 1, 240, 1));
const loopLength = compilePath(diagram.paths[0]).length;
const drawn = lineShape().digits(2);
const lineOf = (poses, channel) =>
  drawn(Array.from({ length: 240 }, (_, i) => [56 + 3.5 * i, 300 - poses[i * POSE.size + channel]]));
let pulled = 0;
const pullKey = () => {
  pulled += 0.01;
  const [rider, ...others] = diagram.riders;
  const { pace } = rider.attachment;
  const keys = pace.keys.map((key, k) => (k === 3 ? { ...key, value: key.value + pulled } : key));
  const shot = {
    ...diagram,
    riders: [{ ...rider, attachment: { ...rider.attachment, pace: { ...pace, keys } } }, ...others],
  };
  const evaluated = evaluateShot(shot, NO_ASSETS);
  const own = sampleRider(evaluated.poses[0], 1, 240, 1);
  for (let n = 1; n < 50; n++) crossings(own, sampled[n], loopLength);
  return own;
};
const drawLines = (riders) => {
  for (const poses of riders) for (const channel of [POSE.distance, POSE.speed]) lineOf(poses, channel);
};
// The others' lines are kept while the scales stay; where the dragged rider stretches those, all are made anew.
const keyMs = quickest(() => drawLines([pullKey()]));
const stretchMs = quickest(() => drawLines([pullKey(), ...sampled.slice(1)]));

// A drive over 5 km: with the bends of the path known, as while a limit is dragged, and with them found anew.
const road = newShot({
  name: 'road',
  paths: [
    {
      id: 'p',
      name: 'P',
      basis: 'bezier',
      points: Array.from({ length: 251 }, (_, i) => {
        const turn = 0.6 * Math.sin(0.4 * i);
        return { position: [18 * i, 0, 40 * Math.sin(0.25 * i) + 10 * turn], handles: 'auto' };
      }),
    },
  ],
  riders: [{ id: 'r', name: 'R', attachment: { path: 'p', pace: { mode: 'drive' } } }],
});
const roadCurve = compilePath(road.paths[0]);
const { pace: driving } = road.riders[0].attachment;
let top = 8;
const drive = (curve) => {
  top += 0.01;
  compilePace({ ...driving, drive: { ...driving.drive, top } }, 24, curve).distance(1000);
};
const driveMs = quickest(() => drive(roadCurve));
const freshMs = quickest(() => drive(compilePath(road.paths[0])));

// Twenty four-wheel riders on rolling ground of 100,000 triangles, each wheel set on it by itself; 600 frames.
const hills = (x, z) => 1.5 * Math.sin(x * 0.05) * Math.cos(z * 0.043);
const SQUARES = 224;
const corner = (i) => (200 * i) / SQUARES - 100;
const field = { positions: [], indices: [] };
for (let i = 0; i <= SQUARES; i++)
  for (let j = 0; j <= SQUARES; j++) field.positions.push(corner(i), hills(corner(i), corner(j)), corner(j));
for (let i = 0; i < SQUARES; i++)
  for (let j = 0; j < SQUARES; j++) {
    const a = i * (SQUARES + 1) + j;
    const b = a + SQUARES + 1;
    field.indices.push(a, a + 1, b, a + 1, b + 1, b);
  }
const fieldMesh = {
  positions: Float32Array.from(field.positions),
  indices: Uint32Array.from(field.indices),
};
const bone = (name, parent, translation) => ({
  name,
  parent,
  translation,
  rotation: [0, 0, 0, 1],
  scale: [1, 1, 1],
  weights: [],
});
const carWheels = [
  [0.8, 2.4],
  [-0.8, 2.4],
  [0.8, 0],
  [-0.8, 0],
].map(([x, z], i) => ({ node: `wheel ${i}`, centre: [x, 0.4, z], radius: 0.4, steers: z > 0 }));
const car = {
  nodes: [
    bone('car', -1, [0, 0, 0]),
    bone('body', 0, [0, 0, 0]),
    ...carWheels.map(({ node, centre }) => bone(node, 0, centre)),
  ],
  clips: [],
};
const round = Array.from({ length: 16 }, (_, i) => {
  const [x, z] = [60 * Math.cos((i * Math.PI) / 8), 45 * Math.sin((i * Math.PI) / 8)];
  return { position: [x, hills(x, z), z] };
});
const convoy = newShot({
  name: 'convoy',
  range: { first: 1, last: 600 },
  paths: [{ id: 'p', name: 'P', basis: 'through', closed: true, points: round }],
  models: [{ id: 'm', name: 'Car', source: { file: 'car.glb' } }],
  ground: { model: 'm' },
  riders: Array.from({ length: 20 }, (_, i) => ({
    id: `r${i}`,
    name: `R${i}`,
    model: 'm',
    wheels: carWheels,
    body: { node: 'body' },
    attachment: {
      path: 'p',
      ground: { mode: 'stick', up: 3, down: 3 },
      offset: { side: ((i % 5) - 2) * 1.5 },
      pace: {
        keys: [
          { frame: 1, value: i * 14 },
          { frame: 600, value: i * 14 + 150 },
        ],
      },
    },
  })),
});
const onField = { ground: new GroundSurface(fieldMesh), hierarchies: new Map([['m', car]]) };
// Each round on a curve of its own: the ground along a curve is cached.
const convoyMs = quickest(() =>
  sampleShot(evaluateShot({ ...convoy, paths: JSON.parse(JSON.stringify(convoy.paths)) }, onField)),
);
const oneCarMs = quickest(() => {
  const evaluated = evaluateShot(convoy, onField);
  sampleRider(evaluated.poses[7], 1, 600, 1);
  sampleParts(evaluated.parts(convoy.riders[7]), 1, 600, 1);
});

// The demo's picker, walking a bend of 600 frames with planted feet.
const picker = await readModel(
  new Uint8Array(readFileSync(new URL('../demo/made/picker.glb', import.meta.url))),
  'picker.glb',
);
const [walking] = picker.facts.gaits;
const walkShot = newShot({
  name: 'walk',
  range: { first: 1, last: 600 },
  paths: [
    {
      id: 'p',
      name: 'P',
      basis: 'through',
      closed: true,
      points: Array.from({ length: 12 }, (_, i) => ({
        position: [5 * Math.sin((i * Math.PI) / 6), 0, 5 * Math.cos((i * Math.PI) / 6)],
      })),
    },
  ],
  models: [{ id: 'm', name: 'Picker', source: { file: 'picker.glb' } }],
  riders: [
    {
      id: 'r',
      name: 'Picker',
      model: 'm',
      gait: { clip: 'walk', idle: 'idle', stride: walking.stride, feet: [...walking.feet] },
      attachment: {
        path: 'p',
        pace: {
          keys: [
            { frame: 1, value: 0 },
            { frame: 600, value: 32 },
          ],
        },
      },
    },
  ],
});
const stage = { ground: null, hierarchies: new Map([['m', hierarchyOf(picker.document)]]) };
const walkMs = quickest(() => sampleShot(evaluateShot(walkShot, stage)));

// Reading and keeping: a document of a megabyte, a model of fifty, keys and drives by the thousand.
const [template] = crowd.riders;
const large = JSON.parse(
  JSON.stringify({
    ...crowd,
    riders: Array.from({ length: 700 }, (_, n) => ({ ...template, id: `r${n}`, name: `R${n}` })),
  }),
);
const largeMegabytes = JSON.stringify(large).length / 1e6;
const parseMs = quickest(() => parseShot(large)) / largeMegabytes;

/** A ball of n × n vertices with normals, as GLB. */
function ballGlb(n) {
  const document = new Document();
  const buffer = document.createBuffer();
  const places = new Float32Array(3 * n * n);
  const indices = new Uint32Array(6 * (n - 1) * (n - 1));
  let at = 0;
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < n; k++) {
      const [a, b] = [(Math.PI * i) / (n - 1), (2 * Math.PI * k) / (n - 1)];
      places.set([Math.sin(a) * Math.cos(b), Math.cos(a), Math.sin(a) * Math.sin(b)], 3 * (i * n + k));
      if (i === n - 1 || k === n - 1) continue;
      const p = i * n + k;
      indices.set([p, p + 1, p + n, p + 1, p + n + 1, p + n], at);
      at += 6;
    }
  }
  const accessor = (type, array) => document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', places))
    .setAttribute('NORMAL', accessor('VEC3', places.slice()))
    .setIndices(accessor('SCALAR', indices));
  const mesh = document.createMesh('ball').addPrimitive(primitive);
  document.createScene('scene').addChild(document.createNode('ball').setMesh(mesh));
  return new WebIO().writeBinary(document);
}
const ball = await ballGlb(1020);
const startOfBall = performance.now();
await readModel(ball, 'ball.glb');
const ballMs = performance.now() - startOfBall;

const manyKeys = Array.from({ length: 10_000 }, (_, i) => ({
  frame: i + 1,
  value: 0.3 * i + Math.sin(i),
  ease: 'smooth',
}));
const keysPace = newShot({
  name: 'keys',
  paths: road.paths,
  riders: [{ id: 'r', name: 'R', attachment: { path: 'p', pace: { keys: manyKeys } } }],
}).riders[0].attachment.pace;
const keysMs = quickest(() => compilePace(keysPace, 24, roadCurve).distance(5_000));
const driven = newShot({
  name: 'driven',
  paths: road.paths,
  riders: Array.from({ length: 1_000 }, (_, n) => ({
    id: `r${n}`,
    name: 'R',
    attachment: { path: 'p', pace: { mode: 'drive' } },
  })),
});
const drivenStart = performance.now();
for (const pose of evaluateShot(driven, NO_ASSETS).poses) sampleRider(pose, 100, 1, 1);
const drivenMs = performance.now() - drivenStart;
const far = newShot({
  name: 'far',
  paths: [
    {
      id: 'p',
      name: 'P',
      basis: 'through',
      points: [0, 1, 2, 3].map((i) => ({ position: [3e5 * i, 0, 2e5 * (i % 2)] })),
    },
  ],
  riders: [{ id: 'r', name: 'R', attachment: { path: 'p', pace: { mode: 'drive' } } }],
});
const farStart = performance.now();
for (const pose of evaluateShot(far, NO_ASSETS).poses) sampleRider(pose, 1, 100, 1);
const farMs = performance.now() - farStart;

const held = { yes: 0, no: [] };
/** Prints a figure; where its name says what is wanted, it is counted whether that holds. */
function line(name, value) {
  console.log(`${name.padEnd(74)}${value}`);
  const wanted = /\(wanted: (?:under )?([\d.,e-]+)(?: (?!or )\w+)?( or more)?/.exec(name);
  if (!wanted) return;
  const [figure, limit] = [value, wanted[1]].map((text) => Number.parseFloat(text.replaceAll(',', '')));
  if (wanted[2] ? figure >= limit : figure <= limit) held.yes++;
  else held.no.push(name.replace(/ \(wanted.*/, ''));
}
console.log(`${QUERIES} places by distance on a closed curve through 16 points, ${ours.length.toFixed(3)} m`);
/**
 * Two hundred riders coupled to or paced by one, on a path of 400 points; each round on objects of its own, since
 * nothing is cached of a shot that just changed.
 */
function surgeryShot(kind) {
  const ring = (id, count, closed, dx) => ({
    id,
    name: id,
    basis: 'through',
    closed,
    points: Array.from({ length: count }, (_, i) => {
      const a = (2 * Math.PI * i) / (closed ? count : count * 1.2);
      const r = 200 + 15 * Math.sin(7 * a);
      return { position: [r * Math.cos(a) + dx, 0, r * Math.sin(a)] };
    }),
  });
  const closed = kind === 'begin';
  const paths = [ring('p', 400, closed, 0), ring('q', 400, false, 900)];
  const range = { first: 1, last: 601 };
  const attachment = newAttachment('p', range);
  const lead = kind === 'begin' ? { ...attachment, pace: { ...attachment.pace, mode: 'drive' } } : attachment;
  const riders = Array.from({ length: 200 }, (_, i) => ({
    id: `r${i}`,
    name: `R${i}`,
    attachment:
      i === 0
        ? lead
        : kind === 'string'
          ? { ...attachment, coupledTo: { rider: `r${i - 1}`, gap: 1 } }
          : { ...lead, pacedBy: { rider: 'r0', delay: i, rate: 1 } },
  }));
  return newShot({ name: 's', range, paths, riders });
}

const surgeries = [
  [
    'Begin here: 200 driven riders paced by one, 400 points',
    'begin',
    (one) => beginRiddenPathAt(one, 'p', 100),
  ],
  [
    'Joining two paths of 400 points, 200 riders on one',
    'join',
    (one) => joinRiddenPaths(one, 'p', 'q', { first: 'end', second: 'start' }),
  ],
  [
    'Detaching a string of 200',
    'string',
    (one) =>
      detachHere(
        one,
        NO_ASSETS,
        one.riders.map(({ id }) => id),
        1,
      ),
  ],
].map(([name, kind, change]) => {
  const fresh = Array.from({ length: ROUNDS }, () => surgeryShot(kind));
  return [name, quickest(() => change(fresh.pop()))];
});

line('Fleet Rail: position, tangent and frame', `${oursMs.toFixed(1)} ms`);
line('three: getPointAt and getTangentAt, no frame', `${theirsMs.toFixed(1)} ms`);
line('three / Fleet Rail (wanted: 40 or more)', (theirsMs / oursMs).toFixed(1));
line('Queries a second, Fleet Rail', `${(QUERIES / oursMs / 1000).toFixed(1)} million`);
line('Spacing error, Fleet Rail (wanted: under 1e-7 m)', `${spacingError(ourOut, 12).toExponential(1)} m`);
line(
  'Spacing error, three at its default of 200 divisions',
  `${spacingError(theirOut, 6).toExponential(1)} m`,
);
line('Same curve: farthest of the 16 points from three’s', `${apart.toExponential(1)} m`);
for (const [basis, ms] of compiling) {
  line(`Compiling a path of 5,000 points, ${basis} (wanted: 50 ms or less)`, `${ms.toFixed(1)} ms`);
}
line('An edit of one point of 500: curve, ribbon, facts, 3 riders × 240 frames', `${editMs.toFixed(1)} ms`);
line('200 riders on 20 paths, 600 frames, all of it (wanted: 500 ms or less)', `${crowdMs.toFixed(0)} ms`);
line('The same after an edit of one rider (wanted: 20 ms or less)', `${oneOfCrowdMs.toFixed(1)} ms`);
line('A string of 60 units on two axles, 600 frames (wanted: 72 ms or less)', `${trainMs.toFixed(0)} ms`);
line(
  'A key dragged, 50 riders: evaluation, crossings, lines (wanted: 16 ms or less)',
  `${keyMs.toFixed(1)} ms`,
);
line('The same where it stretches the scales, so that every line is made anew', `${stretchMs.toFixed(1)} ms`);
line(
  `A drive over ${(roadCurve.length / 1000).toFixed(2)} km on a 0.1 m grid (wanted: 30 ms or less)`,
  `${driveMs.toFixed(1)} ms`,
);
line('The same with the curve and its bends computed anew', `${freshMs.toFixed(1)} ms`);
line(
  `20 four-wheel riders on ${fieldMesh.indices.length / 3} triangles, 600 frames (wanted: 700 ms or less)`,
  `${convoyMs.toFixed(0)} ms`,
);
line('The same after an edit of one (wanted: 50 ms or less)', `${oneCarMs.toFixed(1)} ms`);
line('A skinned walker with planted feet, 600 frames (wanted: 150 ms or less)', `${walkMs.toFixed(0)} ms`);
line('Reading a document, a megabyte (wanted: 60 ms or less)', `${parseMs.toFixed(0)} ms`);
line(
  `Reading a model of ${(ball.length / 1e6).toFixed(0)} MB, first time (wanted: 1,500 ms or less)`,
  `${ballMs.toFixed(0)} ms`,
);
line('10,000 smooth keys, compiled (wanted: 60 ms or less)', `${keysMs.toFixed(0)} ms`);
line('1,000 riders of one drive, first time (wanted: 1,000 ms or less)', `${drivenMs.toFixed(0)} ms`);
line('A drive over 1,000 km, 100 frames, first time (wanted: 2,000 ms or less)', `${farMs.toFixed(0)} ms`);
benchBounds({ line });
for (const [name, ms] of surgeries) line(`${name} (wanted: under 300 ms)`, `${ms.toFixed(0)} ms`);
benchChecks({ line, ground: onField.ground, car, carWheels, hills });
await benchBuilt({ line, quickest, hills: onField.ground });
await benchFiles({ line });
benchLive({ line, quickest, windingPath, convoy, onField, walkShot, stage, alone });
await benchServer({ line });
await benchWaits({ line });
await benchPage({ line });
console.log(
  `\n${held.yes} of ${held.yes + held.no.length} are held${held.no.length > 0 ? `; not: ${held.no.join('; ')}` : ''}.`,
);
