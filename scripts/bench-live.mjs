// Latency of drags: poses in a crowd, wheels and walks by themselves, the demo's lane, and the first load.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { assetsOf, readModelDocument } from '@fleet-rail/core/formats';
import {
  NO_ASSETS,
  POSE,
  checkShot,
  compilePath,
  compiledPathOf,
  evaluateShot,
  newAttachment,
  newShot,
  parseShot,
  pathFacts,
  ribbonFrames,
  sampleGauge,
  sampleParts,
  sampleRider,
} from '@fleet-rail/core';

const MADE = new URL('../demo/made/', import.meta.url);
const WEB = new URL('../packages/web/dist/assets/', import.meta.url);

const WARM = 30;

/** A thousand riders as most of a crowd are, for a thousand frames. */
function thousand(windingPath) {
  const range = { first: 1, last: 1000 };
  return newShot({
    name: 'thousand',
    range,
    paths: Array.from({ length: 20 }, (_, k) => ({ ...windingPath(40, 'through', 30 + k), id: `p${k}` })),
    riders: Array.from({ length: 1000 }, (_, n) => ({
      id: `r${n}`,
      name: `R${n}`,
      attachment: { ...newAttachment(`p${n % 20}`, range), offset: { along: n / 50 } },
    })),
  });
}

/** Microseconds of a pose with all that moves of the model, once it and the code that does it are compiled. */
function poseMicroseconds(quickest, shot, assets, index, frames) {
  const evaluated = evaluateShot(shot, assets);
  const pose = evaluated.poses[index];
  const parts = evaluated.parts(shot.riders[index]);
  const sample = () => {
    sampleRider(pose, 1, frames, 1);
    sampleParts(parts, 1, frames, 1);
  };
  for (let round = 0; round < WARM; round++) sample();
  return (quickest(sample) / frames) * 1e3;
}

/** The demo's lane with one of its points dragged: time until the visible part is there, and until all is. */
async function laneDragged(quickest) {
  const demo = parseShot(JSON.parse(readFileSync(new URL('quillfen-orchard.shot.json', MADE), 'utf8')));
  const documents = new Map();
  for (const { id } of demo.models)
    documents.set(id, await readModelDocument(new Uint8Array(readFileSync(new URL(`${id}.glb`, MADE)))));
  const assets = await assetsOf(demo, documents);
  let dragged = 0;
  const drag = () => {
    dragged += 0.003;
    const points = demo.paths[0].points.map((point, i) =>
      i === 2 ? { ...point, position: point.position.map((value) => value + dragged) } : point,
    );
    return { ...demo, paths: [{ ...demo.paths[0], points }, ...demo.paths.slice(1)] };
  };
  const riders = ['hauler', 'trailer-1', 'trailer-2', 'drone', 'gate'].map((id) =>
    demo.riders.findIndex((rider) => rider.id === id),
  );
  const out = new Float64Array(POSE.size);
  const first = () => {
    const evaluated = evaluateShot(drag(), assets);
    const curve = compiledPathOf(evaluated.shot.paths[0]);
    pathFacts(curve);
    ribbonFrames(curve);
    for (const i of riders) evaluated.poses[i](100, out, 0);
    return evaluated;
  };
  const settled = () => {
    const evaluated = first();
    for (const i of riders) {
      const rider = demo.riders[i];
      sampleRider(evaluated.poses[i], 1, 1080, 1);
      sampleParts(evaluated.parts(rider), 1, 1080, 1);
      for (const gauge of evaluated.gauges(rider)) sampleGauge(gauge, 1, 1080, 1);
    }
  };
  return { first: quickest(first), settled: quickest(settled) };
}

/** Bytes of the scripts that a page loads before it shows anything, as they are sent. */
function firstLoad(...entries) {
  if (!existsSync(WEB)) return null;
  const files = readdirSync(WEB);
  const needed = new Set();
  const take = (file) => {
    if (needed.has(file)) return;
    needed.add(file);
    const text = readFileSync(new URL(file, WEB), 'utf8');
    for (const [, other] of text.matchAll(/(?:from|import)\s*"\.\/([^"]+\.js)"/g)) take(other);
  };
  for (const entry of entries)
    take(files.find((file) => file.startsWith(`${entry}-`) && file.endsWith('.js')));
  return [...needed].reduce((sum, file) => sum + readFileSync(new URL(`${file}.br`, WEB)).length, 0);
}

/**
 * Measured first: later the engine has seen every kind of rider and inlines fewer calls than in a shot of plain
 * riders, or in a desk with its own shot.
 */
export async function benchAlone({ quickest, windingPath }) {
  const crowd = thousand(windingPath);
  const crowdMs = quickest(() => {
    for (const pose of evaluateShot(crowd, NO_ASSETS).poses) sampleRider(pose, 1, 1000, 1);
  });
  const { poses } = evaluateShot(crowd, NO_ASSETS);
  const pose = new Float64Array(POSE.size);
  const poseMs = quickest(() => {
    for (const poseAt of poses) for (let frame = 1; frame <= 1000; frame++) poseAt(frame, pose, 0);
  });
  return { crowdMs, poseMs, lane: await laneDragged(quickest) };
}

export function benchLive({ line, quickest, windingPath, convoy, onField, walkShot, stage, alone }) {
  line('1,000 plain riders × 1,000 frames (wanted: 300 ms or less)', `${alone.crowdMs.toFixed(0)} ms`);
  line('A plain pose in a crowd of 1,000 (wanted: 200 ns or less)', `${alone.poseMs.toFixed(0)} ns`);
  const car = poseMicroseconds(quickest, convoy, onField, 7, 600);
  line('A pose on four wheels on the ground, compiled (wanted: 8 µs or less)', `${car.toFixed(1)} µs`);
  const walk = poseMicroseconds(quickest, walkShot, stage, 0, 600);
  line('A pose of a walker with planted feet, compiled (wanted: 10 µs or less)', `${walk.toFixed(1)} µs`);
  const walkers = {
    ...walkShot,
    range: { first: 1, last: 1000 },
    riders: Array.from({ length: 100 }, (_, n) => {
      const [walker] = walkShot.riders;
      const offset = { ...walker.attachment.offset, along: 0.3 * n };
      return { ...walker, id: `w${n}`, attachment: { ...walker.attachment, offset } };
    }),
  };
  const checkMs = quickest(() => checkShot(evaluateShot(walkers, stage)), 3);
  line('Check of 100 walkers × 1,000 frames (wanted: 400 ms or less)', `${checkMs.toFixed(0)} ms`);
  const out = new Float64Array(12);
  const path = windingPath(1000, 'through', 40);
  const compileMs = quickest(() => compilePath(path));
  const guideMs = quickest(() => compilePath(path).frame(0, out, 0, 'path')) - compileMs;
  line(
    'The twist-free frame of a path of 1,000 points, by its compile (wanted: 2 or less)',
    (guideMs / compileMs).toFixed(1),
  );
  const { lane } = alone;
  line('The demo’s lane dragged: what is looked at (wanted: 25 ms or less)', `${lane.first.toFixed(0)} ms`);
  line('The same, all of it (wanted: 200 ms or less)', `${lane.settled.toFixed(0)} ms`);
  for (const [name, entries] of [
    ['all shots', ['index', 'shots-page']],
    ['a desk’s panel and diagram', ['index', 'desk', 'path-station']],
    ['a desk with its stage', ['index', 'desk', 'path-station', 'stage']],
  ]) {
    const bytes = firstLoad(...entries);
    if (bytes !== null)
      line(`First load, ${name} (wanted: 350 kB or less)`, `${(bytes / 1e3).toFixed(0)} kB`);
  }
}
