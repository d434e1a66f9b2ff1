import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import { POSE } from '../pose/pose.js';
import { hangString } from '../../shot/edits/string.js';
import { formUp } from '../../shot/edits/formation.js';
import { even, line, onGround, poseAt, runs, shotOf, slope } from '../../../test/shots.js';

/** From the origin 10 m along +Z, then a bend to +X. */
const bent = runs([0, 0, 0], [0, 0, 10], [10, 0, 10]);

describe('beyond the ends of an open path', () => {
  it('it goes straight on for what is set off along it, and its own keys are held within it', () => {
    const evaluated = evaluateShot(
      shotOf(
        [bent],
        [
          { id: 'behind', name: 'B', attachment: { path: 'p', pace: even(0, 4), offset: { along: -6 } } },
          { id: 'ahead', name: 'A', attachment: { path: 'p', pace: even(18, 20), offset: { along: 3 } } },
          { id: 'keyed', name: 'K', attachment: { path: 'p', pace: even(-8, 30) } },
        ],
      ),
      NO_ASSETS,
    );
    const behind = poseAt(evaluated, 'behind', 1);
    expect([...behind.subarray(0, 3)]).toEqual([0, 0, -6].map((v) => expect.closeTo(v, 9)));
    expect(behind[POSE.distance]).toBeCloseTo(-6, 9);
    expect(behind[POSE.speed]).toBeCloseTo(1, 9);
    expect([...poseAt(evaluated, 'ahead', 97).subarray(0, 3)]).toEqual(
      [13, 0, 10].map((v) => expect.closeTo(v, 9)),
    );
    expect([1, 97].map((frame) => poseAt(evaluated, 'keyed', frame)[POSE.distance])).toEqual([0, 20]);
    expect(poseAt(evaluated, 'keyed', 2)[POSE.speed]).toBe(0);
  });

  it('a formation keeps its order, and its copies come up to speed together', () => {
    const leader = {
      id: 'l',
      name: 'L',
      attachment: {
        path: 'p',
        pace: {
          keys: [
            { frame: 1, value: 0 },
            { frame: 25, value: 0 },
            { frame: 73, value: 40 },
          ],
        },
      },
    };
    const formed = formUp(shotOf([line(100)], [leader]), NO_ASSETS, 'l', {
      count: 5,
      arrangement: 'file',
      spacing: 2,
      delay: 0,
      step: [0, 0, 0],
      turn: 0,
      seed: 1,
      vary: { place: 0, time: 0, speed: 0, amplitude: 0 },
    });
    const evaluated = evaluateShot(formed.shot, NO_ASSETS);
    for (const frame of [1, 30, 60]) {
      const [z, speed] = [2, POSE.speed].map((k) => poseAt(evaluated, 'l', frame)[k]);
      formed.ids.forEach((id, i) => {
        const pose = poseAt(evaluated, id, frame);
        expect(pose[2]).toBeCloseTo(z - 2 * (i + 1), 9);
        expect(pose[POSE.speed]).toBeCloseTo(speed, 9);
      });
    }
  });

  it('a string hangs straight behind a leader at its start, at its true spacing', () => {
    const chassis = { frontAxle: 1.5, rearAxle: -1.5, frontCoupling: 2.5, rearCoupling: -2.5 };
    const shot = shotOf(
      [bent],
      [
        { id: 'e', name: 'E', chassis, attachment: { path: 'p', pace: even(0, 8) } },
        { id: 'w', name: 'W', chassis },
      ],
    );
    const strung = hangString(shot, 'e', { unit: 'w', count: 4, gap: 0.4 });
    const evaluated = evaluateShot(strung.shot, NO_ASSETS);
    strung.ids.forEach((id, i) => {
      // Five metres each and the gap.
      expect(poseAt(evaluated, id, 1)[2]).toBeCloseTo(-5.4 * (i + 1), 9);
      expect(poseAt(evaluated, id, 97)[2]).toBeCloseTo(8 - 5.4 * (i + 1), 9);
    });
  });

  it('runs on past its end at the speed it had, with its wheels turning and on whatever ground there is', () => {
    const ground = onGround(slope(0, 0.1));
    const shot = shotOf(
      [line(10)],
      [
        {
          id: 'r',
          name: 'R',
          wheels: [
            { node: 'a', centre: [0.6, 0.3, 1], radius: 0.3 },
            { node: 'b', centre: [-0.6, 0.3, 1], radius: 0.3 },
            { node: 'c', centre: [0.6, 0.3, -1], radius: 0.3 },
            { node: 'd', centre: [-0.6, 0.3, -1], radius: 0.3 },
          ],
          attachment: {
            path: 'p',
            pace: { ...even(0, 10, 1, 25), after: 'run' },
            ground: { mode: 'stick', up: 20, down: 20 },
          },
        },
      ],
    );
    const evaluated = evaluateShot(shot, ground);
    const pose = poseAt(evaluated, 'r', 97);
    // 10 m a second for four seconds.
    expect(pose[POSE.distance]).toBeCloseTo(40, 9);
    expect(pose[POSE.speed]).toBeCloseTo(10, 9);
    expect([pose[1], pose[2]]).toEqual([expect.closeTo(4, 6), expect.closeTo(40, 9)]);
    const turns = evaluated.gauges(shot.riders[0]).find(({ kind }) => kind === 'turns');
    const rolled = (40 * Math.hypot(1, 0.1)) / (2 * Math.PI * 0.3);
    expect((turns?.value(97) ?? 0) - (turns?.value(1) ?? 0)).toBeCloseTo(rolled, 5);
  });

  it('goes on from where it was held, not from where its keys would have it', () => {
    const shot = shotOf(
      [line(10)],
      [{ id: 'r', name: 'R', attachment: { path: 'p', pace: { ...even(0, 14, 1, 25), after: 'run' } } }],
    );
    const evaluated = evaluateShot(shot, NO_ASSETS);
    expect(poseAt(evaluated, 'r', 25)[POSE.distance]).toBe(10);
    expect(poseAt(evaluated, 'r', 26)[POSE.distance]).toBeCloseTo(10 + 14 / 24, 9);
  });
});

it('where a document says no axles, those of its wheels are stood on', () => {
  const wheel = (node: string, x: number, z: number) => ({
    node,
    centre: [x, 0.3, z] as [number, number, number],
    radius: 0.3,
  });
  const wheels = [wheel('a', 0.6, 1.4), wheel('b', -0.6, 1.4), wheel('c', 0.6, -1), wheel('d', -0.6, -1)];
  const chassis = { frontAxle: 1.4, rearAxle: -1, frontCoupling: 2, rearCoupling: -2 };
  for (const anchor of ['rearAxle', 'bothAxles', 'frontAxle'] as const) {
    const at = (more: object) =>
      evaluateShot(
        shotOf(
          [runs([0, 0, 0], [0, 0, 10], [10, 0, 20], [20, 0, 20])],
          [{ id: 'r', name: 'R', wheels, ...more, attachment: { path: 'p', anchor, pace: even(3, 25) } }],
        ),
        NO_ASSETS,
      );
    const [found, said] = [at({}), at({ chassis })];
    for (const frame of [1, 40, 97])
      expect([...poseAt(found, 'r', frame)]).toEqual(
        [...poseAt(said, 'r', frame)].map((v) => expect.closeTo(v, 9)),
      );
  }
});
