// Cost that would grow with the length of a smoothing window, at many frames a second: a hundred frames of it, first
// time.
import { NO_ASSETS, evaluateShot, newShot, sampleRider } from '@fleet-rail/core';

const FPS = 240;

function twoThatMeet(rider) {
  const attachment = (from, to) => ({
    path: 'p',
    pace: {
      keys: [
        { frame: 1, value: from },
        { frame: 100, value: to },
      ],
    },
  });
  return newShot({
    name: 'meeting',
    fps: FPS,
    range: { first: 1, last: 100 },
    paths: [
      {
        id: 'p',
        name: 'P',
        basis: 'through',
        points: [
          [0, 0, 0],
          [5, 0, 30],
          [0, 0, 60],
        ].map((position) => ({ position })),
      },
    ],
    riders: [
      { id: 'r', name: 'R', ...rider, attachment: { ...attachment(0, 50), ...rider.attachment } },
      { id: 's', name: 'S', attachment: attachment(50, 0) },
    ],
  });
}

function firstTime(rider) {
  const shot = twoThatMeet(rider);
  const start = performance.now();
  sampleRider(evaluateShot(shot, NO_ASSETS).poses[0], 1, 100, 1);
  return `${(performance.now() - start).toFixed(0)} ms`;
}

export function benchBounds({ line }) {
  const aim = { mode: 'aim', target: { point: [10, 2, 30] }, aim: { damping: 60 } };
  line(
    `Aimed over 60 s at ${FPS} frames a second (wanted: 2,000 ms or less)`,
    firstTime({ attachment: { facing: aim } }),
  );
  line(
    `Kept clear over 60 s at ${FPS} frames a second (wanted: 2,000 ms or less)`,
    firstTime({ clearance: { ease: 60, from: [{ rider: 's', distance: 5 }] } }),
  );
}
