import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import fc from 'fast-check';
import { quat, vec3 } from 'gl-matrix';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { limitDirection, lookAlong } from './aim.js';
import { trackDirection } from './aim-track.js';
import { POSE } from '../pose/pose.js';

const degrees = 180 / Math.PI;
const line = (id: string, from: Vec3, to: Vec3) => ({
  id,
  name: id,
  basis: 'polyline' as const,
  points: [{ position: from }, { position: to }],
});
const once: Loose<Attachment['pace']> = {
  unit: 'laps',
  keys: [
    { frame: 1, value: 0 },
    { frame: 97, value: 1 },
  ],
};

/** A camera along X at a height, and a hauler that runs below and beside it. */
function pursuit(attachment: Loose<Attachment>, camera: Loose<Rider> = {}, parts: Loose<Shot> = {}) {
  return evaluateShot(
    newShot({
      name: 't',
      range: { first: 1, last: 97 },
      paths: [line('high', [-20, 8, 0], [20, 8, 0]), line('low', [-6, 0, 15], [9, 0, 12])],
      riders: [
        {
          id: 'c',
          name: 'Camera',
          kind: 'camera',
          camera: {},
          attachment: { path: 'high', pace: once, ...attachment },
          ...camera,
        },
        { id: 'h', name: 'Hauler', attachment: { path: 'low', pace: once } },
      ],
      ...parts,
    }),
    NO_ASSETS,
  );
}
const aimed = (more: Loose<Attachment['facing']> = {}): Loose<Attachment> => ({
  facing: { mode: 'aim', target: { rider: 'h' }, ...more },
});

function pose(shot: ReturnType<typeof pursuit>, rider: number, frame: number) {
  const out = new Float64Array(POSE.size);
  shot.poses[rider](frame, out, 0);
  const turn = [...out.subarray(3, 7)] as Quat;
  const axis = (v: Vec3) => vec3.transformQuat([0, 0, 0], v, turn) as Vec3;
  return {
    place: [...out.subarray(0, 3)] as Vec3,
    turn,
    nose: axis([0, 0, 1]),
    left: axis([1, 0, 0]),
    up: axis([0, 1, 0]),
  };
}
const direction = (from: Vec3, to: Vec3) =>
  vec3.normalize([0, 0, 0], vec3.subtract([0, 0, 0], to, from)) as Vec3;
const angleDeg = (a: Vec3, b: Vec3) => vec3.angle(a, b) * degrees;

it('looks at a rider, level, whichever way it travels', () => {
  for (const yaw of [0, 180]) {
    const shot = pursuit({ ...aimed(), offset: { yaw } });
    for (const frame of [1, 40.5, 97]) {
      const camera = pose(shot, 0, frame);
      const towards = direction(camera.place, pose(shot, 1, frame).place);
      // Turned round by its own offset it still looks there with its nose.
      expect(angleDeg(camera.nose, towards)).toBeLessThan(1e-4);
      expect(camera.left[1]).toBeCloseTo(0, 9);
      expect(camera.up[1]).toBeGreaterThan(0);
    }
  }
});

it('looks at a named part of a rider, at a point, and at a place ahead on its own path', () => {
  const part = pursuit(aimed({ target: { rider: 'h', node: 'head', at: [0, 2, 1] } }), {});
  const camera = pose(part, 0, 30);
  const hauler = pose(part, 1, 30);
  const head = vec3.add(
    [0, 0, 0],
    hauler.place,
    vec3.transformQuat([0, 0, 0], [0, 2, 1], hauler.turn),
  ) as Vec3;
  expect(angleDeg(camera.nose, direction(camera.place, head))).toBeLessThan(1e-4);

  const point = pose(pursuit(aimed({ target: { point: [3, 1, -7] } })), 0, 60);
  expect(angleDeg(point.nose, direction(point.place, [3, 1, -7]))).toBeLessThan(1e-4);

  const bent = pursuit(
    { facing: { mode: 'aim', ahead: 6 }, pace: { start: { value: 7 } }, path: 'corner' },
    {},
    {
      paths: [
        {
          id: 'corner',
          name: 'Corner',
          basis: 'polyline',
          points: [
            [0, 0, 0],
            [0, 0, 10],
            [10, 0, 10],
          ].map((position) => ({ position: position as Vec3 })),
        },
        line('low', [0, 0, 0], [1, 0, 0]),
      ],
    },
  );
  // From 7 m up the first run to 3 m along the second.
  expect(angleDeg(pose(bent, 0, 1).nose, direction([0, 0, 7], [3, 0, 10]))).toBeLessThan(1e-4);
});

it('keeps its target at a place in the picture', () => {
  const framing: [number, number] = [0.4, -0.25];
  const shot = pursuit(aimed(), { camera: { focal: 24, sensor: 36, aspect: 1.5, framing } });
  for (const frame of [1, 50, 97]) {
    const camera = pose(shot, 0, frame);
    const towards = direction(camera.place, pose(shot, 1, frame).place);
    const depth = vec3.dot(towards, camera.nose);
    // Half the picture is 18 mm wide and 12 mm high at 24 mm.
    expect(-vec3.dot(towards, camera.left) / depth).toBeCloseTo((framing[0] * 18) / 24, 9);
    expect(vec3.dot(towards, camera.up) / depth).toBeCloseTo((framing[1] * 12) / 24, 9);
    expect(camera.left[1]).toBeCloseTo(0, 9);
  }
});

it('keeps its target there while it is rolled by its offset, also by keys', () => {
  const framing: [number, number] = [0.4, -0.3];
  const key = { along: 0, side: 0, rise: 2, yaw: 0, pitch: 0 };
  const offsetKeys = [
    { ...key, frame: 1, roll: 15 },
    { ...key, frame: 97, roll: -70 },
  ];
  for (const attachment of [{ offset: { roll: 15 } }, { offset: { roll: -40, yaw: 180 } }, { offsetKeys }]) {
    const shot = pursuit(
      { ...aimed(), ...attachment },
      { camera: { focal: 24, sensor: 36, aspect: 1.5, framing } },
    );
    for (const frame of [1, 30, 50, 97]) {
      const camera = pose(shot, 0, frame);
      const towards = direction(camera.place, pose(shot, 1, frame).place);
      const depth = vec3.dot(towards, camera.nose);
      expect(-vec3.dot(towards, camera.left) / depth).toBeCloseTo((framing[0] * 18) / 24, 9);
      expect(vec3.dot(towards, camera.up) / depth).toBeCloseTo((framing[1] * 12) / 24, 9);
    }
  }
});

it.each([
  [0, 0],
  [0.5, -0.4],
  [-0.8, 0.7],
] as const)('with a dead zone its target strays from its place (%d, %d) by no more', (x, y) => {
  const camera = { focal: 24, sensor: 36, aspect: 1.5, framing: [x, y] as [number, number] };
  const shot = pursuit(aimed({ aim: { deadZone: 6 } }), { camera });
  let most = 0;
  for (let frame = 1; frame <= 97; frame += 0.25) {
    const { place, left, up, nose } = pose(shot, 0, frame);
    const towards = direction(place, pose(shot, 1, frame).place);
    const framed: Vec3 = [0, 1, 2].map(
      (k) => nose[k] - ((x * 18) / 24) * left[k] + ((y * 12) / 24) * up[k],
    ) as Vec3;
    most = Math.max(most, angleDeg(towards, framed));
    // As one measures in the picture itself, in degrees of its middle.
    const depth = vec3.dot(towards, nose);
    const away = Math.hypot(
      -vec3.dot(towards, left) / depth - (x * 18) / 24,
      vec3.dot(towards, up) / depth - (y * 12) / 24,
    );
    expect(Math.atan(away) * degrees).toBeLessThanOrEqual(6.01);
  }
  expect(most).toBeLessThanOrEqual(6 + 1e-6);
  expect(most).toBeGreaterThan(1.5);
});

it('an influence turns it from looking ahead to looking at the target, the shorter way', () => {
  const keys = [
    { frame: 20, value: 0, ease: 'linear' as const },
    { frame: 60, value: 1 },
  ];
  const blended = pursuit(aimed({ aim: { influence: keys } }));
  const [ahead, there] = [pursuit({}), pursuit(aimed())];
  const same = (frame: number, other: ReturnType<typeof pursuit>) =>
    Math.abs(quat.dot(pose(blended, 0, frame).turn, pose(other, 0, frame).turn));
  expect(same(20, ahead)).toBeCloseTo(1, 9);
  expect(same(60, there)).toBeCloseTo(1, 9);
  // Half way it has turned by half of the angle between the two.
  const whole = quat.getAngle(pose(ahead, 0, 40).turn, pose(there, 0, 40).turn);
  expect(quat.getAngle(pose(ahead, 0, 40).turn, pose(blended, 0, 40).turn)).toBeCloseTo(whole / 2, 6);
});

it('the influence of the attachment takes a rider off its path and to its rest', () => {
  const keys = [
    { frame: 10, value: 1, ease: 'linear' as const },
    { frame: 30, value: 0 },
  ];
  const rest = { translation: [1, 2, 3] as Vec3, rotation: [0, Math.SQRT1_2, 0, Math.SQRT1_2] as Quat };
  const shot = pursuit({ influence: keys }, { rest });
  const riding = pursuit({});
  expect(pose(shot, 0, 10).place).toEqual(pose(riding, 0, 10).place);
  const half = vec3.lerp([0, 0, 0], rest.translation, pose(riding, 0, 20).place, 0.5) as number[];
  expect(pose(shot, 0, 20).place).toEqual(half.map((v) => expect.closeTo(v, 9)));
  expect(pose(shot, 0, 30).place).toEqual(rest.translation.map((v) => expect.closeTo(v, 12)));
  expect(Math.abs(quat.dot(pose(shot, 0, 30).turn, rest.rotation))).toBeCloseTo(1, 12);
});

describe('a dead zone and damping', () => {
  /** A target that jumps by 40° at frame 50 of 100. */
  const step = (frame: number, out: Vec3) => {
    const a = (frame < 50 ? 0 : 40) / degrees;
    vec3.set(out, Math.sin(a), 0, Math.cos(a));
    return true;
  };
  const range = { first: 1, last: 100, loop: false, fps: 24 };
  const yaw = (track: ReturnType<typeof trackDirection>, frame: number) => {
    const out: Vec3 = [0, 0, 1];
    track(frame, out);
    return Math.atan2(out[0], out[2]) * degrees;
  };

  it('the target is never farther from where it looks than the dead zone', () => {
    const sway = (frame: number, out: Vec3) => {
      vec3.normalize(out, [Math.sin(frame / 9), 0.3 * Math.sin(frame / 4), 2]);
      return true;
    };
    const track = trackDirection(sway, range, () => 5 / degrees, 0);
    const [target, look]: [Vec3, Vec3] = [
      [0, 0, 1],
      [0, 0, 1],
    ];
    let still = 0;
    for (let frame = 1; frame <= 100; frame++) {
      sway(frame, target);
      track(frame, look);
      expect(angleDeg(target, look)).toBeLessThanOrEqual(5 + 1e-6);
      if (frame > 1 && Math.abs(yaw(track, frame) - yaw(track, frame - 1)) < 0.2) still++;
    }
    expect(still).toBeGreaterThan(5);
  });

  it('damping turns before as much as after, and lags neither way', () => {
    const track = trackDirection(step, range, null, 0.5);
    for (const d of [1, 4, 9]) {
      // Frame 50 is the first after the jump: 49.5 is the middle.
      expect(yaw(track, 49 - d) + yaw(track, 50 + d)).toBeCloseTo(40, 6);
    }
    expect(yaw(track, 49 - 13)).toBeCloseTo(0, 9);
    expect(yaw(track, 50 + 13)).toBeCloseTo(40, 9);
  });

  it('in a loop it meets itself at the seam', () => {
    const round = (frame: number, out: Vec3) => {
      const a = (2 * Math.PI * (frame - 1)) / 100;
      vec3.normalize(out, [Math.sin(a), 0, 1.4 + Math.cos(a)]);
      return true;
    };
    const track = trackDirection(round, { ...range, loop: true }, () => 4 / degrees, 0.4);
    expect(yaw(track, 101)).toBeCloseTo(yaw(track, 1), 9);
    const seam = yaw(track, 101) - yaw(track, 100);
    expect(Math.abs(seam - (yaw(track, 2) - yaw(track, 1)))).toBeLessThan(1);
  });
});

it('limits hold the nose within so many degrees of the way, softly', () => {
  fc.assert(
    fc.property(
      fc
        .tuple(
          fc.double({ min: -1, max: 1, noNaN: true }),
          fc.double({ min: -1, max: 1, noNaN: true }),
          fc.double({ min: -1, max: 1, noNaN: true }),
        )
        .filter((v) => Math.hypot(...v) > 0.1),
      (v) => {
        const to = vec3.normalize([0, 0, 0], v) as Vec3;
        const out: Vec3 = [0, 0, 0];
        limitDirection(to, [0, 0, 0, 1], 40 / degrees, 25 / degrees, out);
        const [yaw, pitch] = [Math.atan2(out[0], out[2]) * degrees, Math.asin(out[1]) * degrees];
        expect(vec3.length(out)).toBeCloseTo(1, 9);
        expect(Math.abs(yaw)).toBeLessThanOrEqual(40 + 1e-9);
        expect(Math.abs(pitch)).toBeLessThanOrEqual(25 + 1e-9);
        if (Math.abs(Math.atan2(to[0], to[2]) * degrees) < 35 && Math.abs(Math.asin(to[1]) * degrees) < 22)
          expect(angleDeg(to, out)).toBeLessThan(1e-4);
      },
    ),
  );
});

it('over the top of its target the picture turns, but does not jump', () => {
  const turn: Quat = [0, 0, 0, 1];
  let before: Quat | null = null;
  for (let x = -3; x <= 3; x += 0.002) {
    lookAlong(direction([0, 10, x], [0.01, 0, 0]), [1, 0, 0], turn);
    if (before) expect(quat.getAngle(before, turn) * degrees).toBeLessThan(1.5);
    before = [...turn] as Quat;
  }
});

it('a circle of riders that wait for each other is refused with their names', () => {
  const riders = (third: Loose<Rider>): Loose<Rider>[] => [
    { id: 'a', name: 'Anna', attachment: { path: 'high', facing: { mode: 'aim', target: { rider: 'b' } } } },
    { id: 'b', name: 'Bert', parent: 'c' },
    { id: 'c', name: 'Cleo', ...third },
  ];
  const shot = (third: Loose<Rider>) => () =>
    newShot({ name: 't', paths: [line('high', [0, 0, 0], [1, 0, 0])], riders: riders(third) });
  expect(shot({ attachment: { path: 'high', coupledTo: { rider: 'a' } } })).toThrow(
    'Anna → Bert → Cleo → Anna',
  );
  expect(shot({ attachment: { path: 'high', pacedBy: { rider: 'a' } } })).toThrow(
    'Anna → Bert → Cleo → Anna',
  );
  expect(shot({})).not.toThrow();
});
