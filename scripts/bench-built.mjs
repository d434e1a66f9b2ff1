// Dynamic bodies, dressing and sprays.
import {
  POSE,
  evaluateShot,
  layPieces,
  newShot,
  parseShot,
  physicsFor,
  compiledPathOf,
} from '@fleet-rail/core';

const [BALLS, FRAMES, PIECES] = [50, 480, 500];

/** A ring that goes up and down. */
const ring = (id, radius) => ({
  id,
  name: id,
  basis: 'through',
  closed: true,
  points: Array.from({ length: 12 }, (_, i) => {
    const a = (2 * Math.PI * i) / 12;
    return { position: [radius * Math.cos(a), 0, radius * Math.sin(a)] };
  }),
});

export async function benchBuilt({ line, quickest, hills }) {
  const shot = parseShot({
    ...newShot({ name: 'balls', range: { first: 1, last: FRAMES } }),
    paths: [0, 1, 2, 3, 4].map((i) => ring(`p${i}`, 8 + 2 * i)),
    models: [],
    riders: Array.from({ length: BALLS }, (_, i) => ({
      id: `b${i}`,
      name: `Ball ${i}`,
      attachment: {
        path: `p${i % 5}`,
        pace: {
          keys: [
            { frame: 1, value: 0.1 * Math.floor(i / 5) },
            { frame: FRAMES, value: 0.1 * Math.floor(i / 5) + 1 },
          ],
        },
      },
      rigidBody: { size: 0.4, pull: 0.5, bounce: 0.3 },
    })),
  });
  const assets = { ground: hills, hierarchies: new Map(), physics: await physicsFor(shot) };
  const evaluated = evaluateShot(shot, assets);
  const start = performance.now();
  finished(evaluated.settle());
  const settled = performance.now() - start;
  const now = new Float64Array(POSE.size);
  const scrub = quickest(() => {
    for (let frame = 1; frame <= FRAMES; frame++)
      for (const pose of evaluated.poses) pose(frame + 0.3, now, 0);
  });
  const late = {
    ...shot,
    riders: shot.riders.map((rider, i) => (i === 7 ? withLateKey(rider) : rider)),
  };
  const again = performance.now();
  finished(evaluateShot(late, assets).settle());
  line(`Forces: ${BALLS} balls × ${FRAMES} frames (wanted: under 4,000 ms)`, `${settled.toFixed(0)} ms`);
  line('The same after an edit of its last second', `${(performance.now() - again).toFixed(0)} ms`);
  line(
    'A kept one scrubbed, a body (wanted: under 20 µs)',
    `${((1000 * scrub) / (BALLS * FRAMES)).toFixed(2)} µs`,
  );
  const laid = parseShot({
    ...newShot({ name: 'laid' }),
    paths: [ring('p', 50)],
    dressing: [
      { id: 'l', name: 'Ties', path: 'p', every: (2 * Math.PI * 50) / PIECES, fit: true, stand: 'ground' },
    ],
  });
  // A path that is dragged is compiled as well.
  const drag = quickest(() => {
    const path = { ...laid.paths[0], points: laid.paths[0].points.map((point) => ({ ...point })) };
    layPieces(laid.dressing[0], compiledPathOf(path), hills);
  });
  line(`${PIECES} pieces laid along a path that is dragged (wanted: 16 ms or less)`, `${drag.toFixed(1)} ms`);
}

const finished = (steps) => {
  while (!steps.next().done);
};

function withLateKey(rider) {
  const { attachment } = rider;
  const [first, last] = attachment.pace.keys;
  const frame = FRAMES - 24;
  const value = first.value + ((last.value - first.value) * (frame - 1)) / (FRAMES - 1);
  const keys = [first, { ...first, frame, value }, { ...last, value: last.value + 0.05 }];
  return { ...rider, attachment: { ...attachment, pace: { ...attachment.pace, keys } } };
}
