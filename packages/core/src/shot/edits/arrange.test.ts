import { evaluateShot } from '../evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import { quat, vec3 } from 'gl-matrix';
import { newShot, type Loose } from '../../document/new-shot.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { POSE } from '../../motion/pose/pose.js';
import { poseOfRider, withAttachment } from './change-rider.js';
import { formUp, type Formation } from './formation.js';
import { attachRiders, speedOnce, type AttachPlan } from './attach-riders.js';
import { detachBack, detachHere, removeRider } from './remove-riders.js';
import { putBack, attachToCarrier } from './attach-to-carrier.js';
import { reshapeRiddenPath } from './keep-places.js';
import { hangString } from './string.js';

const corner: Vec3[] = [
  [0, 0, 0],
  [0, 0, 30],
  [40, 0, 30],
];
const rest = { translation: [6, 1, 12] as Vec3, rotation: [0, 0.6, 0, 0.8] as Quat };
const chassis = { frontAxle: 1, rearAxle: -1, frontCoupling: 1.5, rearCoupling: -1.5 };

function shotOf(riders: Loose<Rider>[], closed = false): Shot {
  return newShot({
    name: 't',
    fps: 25,
    range: { first: 1, last: 101 },
    paths: [
      { id: 'p', name: 'P', basis: 'polyline', closed, points: corner.map((position) => ({ position })) },
    ],
    riders,
  });
}
const plan: AttachPlan = {
  path: 'p',
  start: 10,
  way: 'along',
  timing: { kind: 'once' },
  startFrame: 1,
  spacing: 0,
  keepsPlace: false,
};
const place = (shot: Shot, id: string, frame: number) =>
  [...poseOfRider(evaluateShot(shot, NO_ASSETS), id, frame).subarray(0, 3)] as Vec3;
const turn = (shot: Shot, id: string, frame: number) =>
  [...poseOfRider(evaluateShot(shot, NO_ASSETS), id, frame).subarray(3, 7)] as Quat;
const distance = (shot: Shot, id: string, frame: number) =>
  poseOfRider(evaluateShot(shot, NO_ASSETS), id, frame)[POSE.distance];
const nose = (shot: Shot, id: string, frame: number) =>
  vec3.transformQuat([0, 0, 0], [0, 0, 1], turn(shot, id, frame));
const near = (v: Vec3) => v.map((value) => expect.closeTo(value, 6));
/** Document as the server would accept it. */
const accepted = (shot: Shot) => {
  const read = parseShot(JSON.parse(JSON.stringify(shot)));
  // Numbers of less than a trillionth are read as nought.
  const clean = (_: string, value: unknown) =>
    typeof value === 'number' && Math.abs(value) < 1e-12 ? 0 : value;
  expect(read).toEqual(JSON.parse(JSON.stringify(shot, clean)));
};

describe('attaching', () => {
  const base = shotOf([
    { id: 'a', name: 'A', rest },
    { id: 'b', name: 'B', rest },
  ]);

  it('starts part-way and is at the end with the last frame, once', () => {
    const after = attachRiders(base, NO_ASSETS, ['a'], plan);
    expect([1, 51, 101].map((frame) => distance(after, 'a', frame))).toEqual(
      [10, 40, 70].map((v) => expect.closeTo(v, 9)),
    );
    accepted(after);
  });

  it('a vehicle that steers follows with its rear axle, whose middle stays on the path in a bend', () => {
    const wheel = { node: 'w', steers: true };
    const car = { id: 'a', name: 'A', rest, chassis, wheels: [wheel] };
    const after = attachRiders(shotOf([car]), NO_ASSETS, ['a'], plan);
    expect(after.riders[0].attachment?.anchor).toBe('rearAxle');
    // Its rear axle is at 10 m of 30 m along +Z at the first frame; its origin 1 m ahead.
    expect(place(after, 'a', 1)).toEqual(near([0, 0, 11]));
    // A rider that cannot steer, or that keeps its place, is held by its origin.
    const still = attachRiders(shotOf([car]), NO_ASSETS, ['a'], { ...plan, keepsPlace: true });
    expect(still.riders[0].attachment?.anchor).toBe('origin');
    expect(place(still, 'a', plan.startFrame)).toEqual(near(rest.translation));
    const sledge = attachRiders(
      shotOf([{ ...car, wheels: [{ ...wheel, steers: false }] }]),
      NO_ASSETS,
      ['a'],
      plan,
    );
    expect(sledge.riders[0].attachment?.anchor).toBe('origin');
  });

  it('tells how fast once over is', () => {
    const speed = (startFrame: number, way: 'along' | 'against', parts = { length: 70, closed: false }) =>
      speedOnce(base, { start: 10, startFrame, way }, parts);
    // 60 m in 4 s, 60 m in 2 s, back 10 m in 4 s; all of a round in 4 s, and in a loop its 101st frame too.
    expect([speed(1, 'along'), speed(51, 'along'), speed(1, 'against')]).toEqual([15, 30, 2.5]);
    const round = { length: 101, closed: true };
    expect(speed(1, 'against', round)).toBe(25.25);
    expect(speedOnce({ ...base, loop: true }, { start: 10, startFrame: 1, way: 'along' }, round)).toBe(25);
  });

  it('against the path it goes back to the start, nose first', () => {
    const after = attachRiders(base, NO_ASSETS, ['a'], { ...plan, way: 'against' });
    expect([1, 101].map((frame) => distance(after, 'a', frame))).toEqual(
      [10, 0].map((v) => expect.closeTo(v, 9)),
    );
    expect(nose(after, 'a', 1)).toEqual(near([0, 0, -1]));
  });

  it('at a speed it is there when it is there, and waits', () => {
    const after = attachRiders(base, NO_ASSETS, ['a'], {
      ...plan,
      timing: { kind: 'speed', speed: 20 },
      startFrame: 6,
    });
    expect(poseOfRider(evaluateShot(after, NO_ASSETS), 'a', 20)[POSE.speed]).toBeCloseTo(20, 9);
    // 60 m at 20 m/s are 3 s, 75 frames.
    expect([6, 81, 95].map((frame) => distance(after, 'a', frame))).toEqual(
      [10, 70, 70].map((v) => expect.closeTo(v, 9)),
    );
    // Half as long again, it goes as fast as before, and is there later.
    const [path] = after.paths;
    const moved = path.points.map((point, i) =>
      i === path.points.length - 1
        ? { ...point, position: point.position.map((value) => value * 1.5) as Vec3 }
        : point,
    );
    const longer = reshapeRiddenPath(after, { ...path, points: moved });
    expect(poseOfRider(evaluateShot(longer, NO_ASSETS), 'a', 60)[POSE.speed]).toBeCloseTo(20, 9);
    expect(poseOfRider(evaluateShot(longer, NO_ASSETS), 'a', 95)[POSE.speed]).toBeCloseTo(20, 9);
    const round = attachRiders(shotOf([{ id: 'a', name: 'A' }], true), NO_ASSETS, ['a'], {
      ...plan,
      timing: { kind: 'speed', speed: 40 },
    });
    expect(distance(round, 'a', 101)).toBeCloseTo(170, 9);
  });

  it('once over the range, round a closed path in a loop, no frame is doubled: the frame after the last is the first', () => {
    const round = { ...shotOf([{ id: 'a', name: 'A' }], true), loop: true };
    const after = attachRiders(round, NO_ASSETS, ['a'], plan);
    const keys = after.riders[0].attachment?.pace.keys ?? [];
    expect(keys.map(({ frame }) => frame)).toEqual([1, 102]);
    // Without a loop the last frame is where it ends, as ever.
    const once = attachRiders({ ...round, loop: false }, NO_ASSETS, ['a'], plan);
    expect(once.riders[0].attachment?.pace.keys.map(({ frame }) => frame)).toEqual([1, 101]);
  });

  it('several start one behind the other', () => {
    const after = attachRiders(base, NO_ASSETS, ['a', 'b'], { ...plan, spacing: 3 });
    expect(distance(after, 'a', 51) - distance(after, 'b', 51)).toBeCloseTo(3, 9);
  });

  it('a string comes along with its leader; a unit that is taken off alone goes on by itself', () => {
    const other = {
      id: 'q',
      name: 'Q',
      basis: 'polyline',
      points: [{ position: [0, 0, 90] }, { position: [0, 0, 160] }],
    };
    const shot = shotOf([
      { id: 'e', name: 'Engine', chassis },
      { id: 'w', name: 'Wagon', chassis },
    ]);
    const both = newShot({ ...shot, paths: [...shot.paths, other] } as Loose<Shot> & { name: string });
    const hung = hangString(attachRiders(both, NO_ASSETS, ['e'], plan), 'e', {
      unit: 'w',
      count: 1,
      gap: 1,
    }).shot;
    const moved = attachRiders(hung, NO_ASSETS, ['e'], { ...plan, path: 'q', start: 50 });
    expect(moved.riders.map(({ attachment }) => attachment?.path)).toEqual(['q', 'q']);
    expect(distance(moved, 'w', 1)).toBeCloseTo(50 - 1.5 - 1 - 0.5, 9);
    const alone = attachRiders(hung, NO_ASSETS, ['w'], { ...plan, path: 'q', timing: { kind: 'kept' } });
    expect(alone.riders[1].attachment).toMatchObject({ path: 'q', coupledTo: null });
    expect(distance(alone, 'w', 60)).toBeCloseTo(distance(hung, 'w', 60), 6);
  });

  it('keeping its place it does not move, on or past the end of the path, banked or with other axes', () => {
    for (const translation of [
      [6, 1, 12],
      [-3, 2, -4],
      [55, 0, 31],
    ] as Vec3[]) {
      for (const forward of ['+z', '-x'] as const) {
        const before = shotOf([{ id: 'a', name: 'A', rest: { translation, rotation: rest.rotation } }]);
        const axes = new Map([['a', { forward, up: '+y' as const }]]);
        const attached = attachRiders(
          before,
          NO_ASSETS,
          ['a'],
          { ...plan, keepsPlace: true, startFrame: 20 },
          axes,
        );
        expect(place(attached, 'a', 20)).toEqual(near(translation));
        expect(Math.abs(quat.dot(turn(attached, 'a', 20), rest.rotation))).toBeCloseTo(1, 9);
        accepted(attached);
        const banked = withAttachment(attached, 'a', (attachment) => ({
          ...attachment,
          bank: { ...attachment.bank, mode: 'amount', amount: 30, window: 8 },
        }));
        const again = attachRiders(banked, NO_ASSETS, ['a'], {
          ...plan,
          keepsPlace: true,
          timing: { kind: 'kept' },
          startFrame: 60,
        });
        expect(place(again, 'a', 60)).toEqual(near(place(banked, 'a', 60)));
        expect(Math.abs(quat.dot(turn(again, 'a', 60), turn(banked, 'a', 60)))).toBeCloseTo(1, 9);
      }
    }
  });
});

describe('coming off again', () => {
  const attached = attachRiders(shotOf([{ id: 'a', name: 'A', rest }]), NO_ASSETS, ['a'], plan);

  it('stays where it is, or goes back to where it was before', () => {
    const here = detachHere(attached, NO_ASSETS, ['a'], 70);
    expect(place(here, 'a', 1)).toEqual(near(place(attached, 'a', 70)));
    expect(place(detachBack(attached, NO_ASSETS, ['a']), 'a', 1)).toEqual(near(rest.translation));
    expect(here.riders[0].attachment).toBeNull();
  });

  it('what took its time from it, or hung behind it, goes on as before', () => {
    const units = shotOf([
      { id: 'a', name: 'A', chassis },
      { id: 'b', name: 'B', chassis },
      { id: 'c', name: 'C', chassis },
    ]);
    const string = hangString(
      hangString(attachRiders(units, NO_ASSETS, ['a'], plan), 'a', { unit: 'b', count: 1, gap: 0.5 }).shot,
      'a',
      { unit: 'c', count: 1, gap: 0.5 },
    ).shot;
    const formed = formUp(string, NO_ASSETS, 'a', {
      ...formation,
      count: 1,
      arrangement: 'later',
      delay: 10,
    });
    const [copy] = formed.ids;
    for (const after of [
      removeRider(formed.shot, NO_ASSETS, 'a', 1),
      detachBack(formed.shot, NO_ASSETS, ['a']),
      detachHere(formed.shot, NO_ASSETS, ['a'], 50),
    ]) {
      for (const frame of [20, 60]) {
        expect(distance(after, copy, frame)).toBeCloseTo(distance(formed.shot, copy, frame), 6);
        for (const id of ['b', 'c'])
          expect(distance(after, id, frame)).toBeCloseTo(distance(formed.shot, id, frame), 6);
      }
      accepted(after);
    }
    // Taken off together, each stays exactly where it was.
    const off = detachHere(formed.shot, NO_ASSETS, ['a', 'b', 'c', copy], 64);
    for (const id of ['a', 'b', 'c', copy])
      expect(place(off, id, 1)).toEqual(near(place(formed.shot, id, 64)));
    // Without the middle one the last hangs as far behind the first as it did.
    const shorter = removeRider(formed.shot, NO_ASSETS, 'b', 1);
    expect(shorter.riders.find(({ id }) => id === 'c')?.attachment?.coupledTo?.rider).toBe('a');
    expect(distance(shorter, 'c', 90)).toBeCloseTo(distance(formed.shot, 'c', 90), 6);
  });

  it('what it carried stands where it stood, who looked at it faces the path, and cuts to it go', () => {
    const shot = newShot({
      ...attached,
      riders: [
        { ...attached.riders[0], camera: {} },
        { id: 'load', name: 'Load', parent: 'a', rest: { translation: [0, 2, 0] } },
        {
          id: 'eye',
          name: 'Eye',
          attachment: { path: 'p', facing: { mode: 'aim', target: { rider: 'a' } } },
        },
      ],
      cuts: [{ frame: 1, camera: 'a' }],
    } as Loose<Shot> & { name: string });
    const after = removeRider(shot, NO_ASSETS, 'a', 40);
    expect(place(after, 'load', 1)).toEqual(near(place(shot, 'load', 40)));
    expect(after.riders[1].attachment?.facing.target).toBeNull();
    expect(after.cuts).toEqual([]);
    accepted(after);
  });
});

const formation: Formation = {
  count: 5,
  arrangement: 'wedge',
  spacing: 2,
  delay: 0,
  step: [0, 0, 0],
  turn: 0,
  seed: 7,
  vary: { place: 0, time: 0, speed: 0, amplitude: 0 },
};

describe('a formation', () => {
  const led = attachRiders(
    shotOf([{ id: 'k', name: 'Kestrel', kind: 'creature', badge: 'K1' }]),
    NO_ASSETS,
    ['k'],
    plan,
  );

  it('keeps its places beside and behind the leader, and its time', () => {
    const { shot, ids } = formUp(led, NO_ASSETS, 'k', { ...formation, count: 2 });
    // On the first straight, along +Z, left is +X.
    expect(place(shot, ids[0], 20)).toEqual(
      near(vec3.add([0, 0, 0], place(shot, 'k', 20), [2, 0, -2]) as Vec3),
    );
    expect(place(shot, ids[1], 20)).toEqual(
      near(vec3.add([0, 0, 0], place(shot, 'k', 20), [-2, 0, -2]) as Vec3),
    );
    expect(shot.riders.map(({ badge, name }) => `${badge} ${name}`)).toEqual([
      'K1 Kestrel',
      'K2 Kestrel 2',
      'K3 Kestrel 3',
    ]);
    accepted(shot);
  });

  it('follows what its leader is given later', () => {
    const { shot, ids } = formUp(led, NO_ASSETS, 'k', { ...formation, arrangement: 'file', count: 1 });
    const slowed = withAttachment(shot, 'k', (attachment) => ({
      ...attachment,
      pace: {
        ...attachment.pace,
        keys: attachment.pace.keys.map((key) => ({ ...key, value: key.value / 2 })),
      },
    }));
    expect(distance(slowed, ids[0], 80)).toBeCloseTo(distance(slowed, 'k', 80) - 2, 9);
  });

  it('varies by its seed: the same again, other for another, and a copy is the same in a larger flight', () => {
    const vary = { place: 1, time: 6, speed: 0.1, amplitude: 0.3 };
    const hitches = (seed: number, count: number) =>
      formUp(led, NO_ASSETS, 'k', { ...formation, seed, count, vary })
        .shot.riders.slice(1)
        .map(({ attachment }) => attachment);
    expect(hitches(3, 4)).toEqual(hitches(3, 4));
    expect(hitches(3, 9).slice(0, 4)).toEqual(hitches(3, 4));
    expect(hitches(4, 4)).not.toEqual(hitches(3, 4));
    for (const attachment of hitches(3, 60)) {
      expect(Math.abs(attachment?.pacedBy?.delay ?? NaN)).toBeLessThanOrEqual(6);
      expect(Math.abs((attachment?.pacedBy?.rate ?? NaN) - 1)).toBeLessThanOrEqual(0.1);
      expect(Math.abs(attachment?.offset.rise ?? NaN)).toBeLessThanOrEqual(1);
    }
  });

  it('what drives is not lifted off the ground', () => {
    const truck = { ...led, riders: led.riders.map((rider) => ({ ...rider, kind: 'vehicle' as const })) };
    const { shot } = formUp(truck, NO_ASSETS, 'k', { ...formation, vary: { ...formation.vary, place: 1 } });
    expect(shot.riders.every(({ attachment }) => attachment?.offset.rise === 0)).toBe(true);
  });

  it('the whole ride is moved and turned about where its leader starts', () => {
    const { shot, ids } = formUp(led, NO_ASSETS, 'k', {
      ...formation,
      arrangement: 'moved',
      count: 2,
      step: [0, 3, 0],
      turn: 90,
    });
    const start = place(led, 'k', 1);
    expect(place(shot, ids[1], 1)).toEqual(near([start[0], 6, start[2]]));
    // After 6 m along +Z, turned by a quarter to the left: along +X.
    const gone = distance(led, 'k', 11) - 10;
    expect(place(shot, ids[0], 11)).toEqual(near([start[0] + gone, 3, start[2]]));
    expect(nose(shot, ids[0], 11)).toEqual(near([1, 0, 0]));
  });

  it('needs a rider on a path', () => {
    expect(() => formUp(detachBack(led, NO_ASSETS, ['k']), NO_ASSETS, 'k', formation)).toThrow(
      'a rider on a path',
    );
  });
});

it('a string takes copies of its unit, with both axles on the path', () => {
  const shot = attachRiders(
    shotOf([
      { id: 'e', name: 'Engine', chassis },
      { id: 't', name: 'Trailer', badge: 'T2', chassis },
    ]),
    NO_ASSETS,
    ['e'],
    { ...plan, start: 20 },
  );
  const { shot: hung, ids } = hangString(shot, 'e', { unit: 't', count: 3, gap: 0.4 });
  expect(ids).toHaveLength(3);
  // The engine is held by its origin: 1.5 m to its coupling, the gap, 0.5 m from coupling to front axle; then each a
  // length and a gap.
  const places = ids.map((id) => distance(hung, id, 1));
  expect(places).toEqual(
    [20 - 1.5 - 0.4 - 0.5, 20 - 2.4 - 3.4, 20 - 2.4 - 6.8].map((v) => expect.closeTo(v, 9)),
  );
  expect(hung.riders.slice(1).every(({ attachment }) => attachment?.anchor === 'bothAxles')).toBe(true);
  expect(() => hangString(hung, 't', { unit: 'e', count: 1, gap: 0 })).toThrow('Engine');
  accepted(hung);
});

it('on a carrier a rider keeps its place, or takes the carrier’s', () => {
  const shot = attachRiders(
    shotOf([
      { id: 'c', name: 'Carrier' },
      { id: 'a', name: 'A', rest },
    ]),
    NO_ASSETS,
    ['c'],
    plan,
  );
  const kept = attachToCarrier(shot, NO_ASSETS, 'a', 'c', 30, true);
  expect(place(kept, 'a', 30)).toEqual(near(rest.translation));
  expect(place(attachToCarrier(shot, NO_ASSETS, 'a', 'c', 30, false), 'a', 77)).toEqual(
    near(place(shot, 'c', 77)),
  );
  expect(place(attachToCarrier(kept, NO_ASSETS, 'a', null, 80, true), 'a', 1)).toEqual(
    near(place(kept, 'a', 80)),
  );
  expect(() => attachToCarrier(kept, NO_ASSETS, 'c', 'a', 1, true)).toThrow('Carrier → A → Carrier');
  // However it was moved on its carrier, it can be put back where it was.
  const shifted = attachToCarrier(shot, NO_ASSETS, 'a', 'c', 30, false);
  accepted(shifted);
  expect(place(putBack(shifted, 'a'), 'a', 77)).toEqual(near(rest.translation));
  expect(putBack(shifted, 'a').riders[1]).toEqual(shot.riders[1]);
});
