import { line, placeOf as place, poseAt, even, shotOf } from '../../../test/shots.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Loose } from '../../document/new-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { POSE } from '../../motion/pose/pose.js';
import { changeString, unitsBehind } from './change-string.js';
import { withAttachment, withRider } from './change-rider.js';
import { formUp, type Formation } from './formation.js';
import { reform } from './reform.js';
import { removeRider } from './remove-riders.js';
import { hangString } from './string.js';

const wedge: Formation = {
  count: 4,
  arrangement: 'wedge',
  spacing: 2,
  delay: 0,
  step: [0, 0, 0],
  turn: 0,
  seed: 7,
  vary: { place: 0.5, time: 3, speed: 0, amplitude: 0 },
};
const kestrel: Loose<Rider> = {
  id: 'k',
  name: 'Kestrel',
  kind: 'creature',
  badge: 'K1',
  attachment: { path: 'p', pace: even(0, 48, 1, 97) },
};
const flight = (more: object = {}, rider = kestrel): Shot =>
  shotOf([line(100)], [rider], { range: { first: 1, last: 97 }, ...more } as never);
const placeOf = (shot: Parameters<typeof poseAt>[0], id: string, frame: number) =>
  place(poseAt(shot, id, frame));
const stored = (shot: Shot): Shot => parseShot(JSON.parse(JSON.stringify(shot)));
const offsets = ({ riders }: Shot) => riders.slice(1).map(({ attachment }) => attachment?.offset);

describe('a formation that is opened again', () => {
  const formed = stored(formUp(flight(), NO_ASSETS, 'k', wedge).shot);
  const [{ id, members }] = formed.formations;

  it('is placed as one that was made so, in any arrangement, count and seed', () => {
    for (const next of [
      { ...wedge, spacing: 5 },
      { ...wedge, count: 7, seed: 12 },
      { ...wedge, count: 2, arrangement: 'abreast' as const },
      { ...wedge, arrangement: 'later' as const, delay: 9, vary: { ...wedge.vary, time: 0 } },
    ]) {
      const [again, fresh] = [
        reform(formed, NO_ASSETS, id, next).shot,
        formUp(flight(), NO_ASSETS, 'k', next).shot,
      ];
      expect(again.riders.length).toBe(fresh.riders.length);
      again.riders.slice(1).forEach(({ attachment }, i) => {
        const wanted = fresh.riders[i + 1].attachment!;
        for (const part of ['along', 'side', 'rise'] as const)
          expect(attachment?.offset[part]).toBeCloseTo(wanted.offset[part], 12);
        expect(attachment?.pacedBy?.delay).toBeCloseTo(wanted.pacedBy!.delay, 12);
      });
      expect(stored(again).formations[0].members.length).toBe(next.count);
    }
  });

  it('and back to what it was', () => {
    const there = reform(formed, NO_ASSETS, id, { ...wedge, spacing: 9, seed: 3 }).shot;
    const back = reform(there, NO_ASSETS, id, wedge).shot;
    offsets(back).forEach((offset, i) => expect(offset?.along).toBeCloseTo(offsets(formed)[i]!.along, 12));
  });

  it('what was changed of a member stays; one that has left is let be, and one that is gone stays gone', () => {
    const [first, second, third] = members as string[];
    let own = withAttachment(formed, first, (attachment) => ({
      ...attachment,
      offset: { ...attachment.offset, rise: attachment.offset.rise + 4 },
      bank: { ...attachment.bank, mode: 'physical' },
    }));
    own = withAttachment(own, second, (attachment) => ({ ...attachment, pacedBy: null }));
    own = stored(removeRider(own, NO_ASSETS, third, 1));
    expect(own.formations[0].members).toEqual([first, second, null, members[3]]);
    const { shot } = reform(own, NO_ASSETS, id, { ...wedge, spacing: 5 });
    const fresh = formUp(flight(), NO_ASSETS, 'k', { ...wedge, spacing: 5 }).shot;
    const at = (who: string) => shot.riders.find((rider) => rider.id === who)?.attachment;
    expect(at(first)?.offset.rise).toBeCloseTo(fresh.riders[1].attachment!.offset.rise + 4, 12);
    expect(at(first)?.offset.along).toBeCloseTo(fresh.riders[1].attachment!.offset.along, 12);
    expect(at(first)?.bank.mode).toBe('physical');
    expect(at(second)).toBe(own.riders.find((rider) => rider.id === second)?.attachment);
    expect(at(third)).toBeUndefined();
    // Thinned to one, what left it is not deleted.
    const thin = reform(own, NO_ASSETS, id, { ...wedge, count: 1 }).shot;
    expect(thin.riders.map((rider) => rider.id)).toEqual(['k', first, second]);
  });

  it('goes with its leader', () => {
    expect(removeRider(formed, NO_ASSETS, 'k', 1).formations).toEqual([]);
    expect(() => parseShot({ ...formed, formations: [{ id: 'f', leader: 'nobody' }] })).toThrow(
      'formations[0].leader',
    );
  });
});

describe('speeds by a seed in a loop', () => {
  const ring = { ...line(60), closed: true };
  const vary = { ...wedge.vary, speed: 0.3 };
  const looped = (laps: number, keys?: object[]) =>
    shotOf(
      [ring],
      [
        {
          ...kestrel,
          attachment: {
            path: 'p',
            pace: {
              unit: 'laps',
              keys: keys ?? [
                { frame: 1, value: 0 },
                { frame: 97, value: laps },
              ],
              after: 'accumulate',
              before: 'accumulate',
            },
          },
        } as Loose<Rider>,
      ],
      { range: { first: 1, last: 96 }, loop: true } as never,
    );

  it('make whole laps, the nearest to what the seed says', () => {
    const { shot } = formUp(looped(8), NO_ASSETS, 'k', { ...wedge, count: 30, vary });
    const rates = shot.riders.slice(1).map(({ attachment }) => attachment!.pacedBy!.rate * 8);
    expect(rates.every((laps) => Math.abs(laps - Math.round(laps)) < 1e-9)).toBe(true);
    expect(new Set(rates.map((laps) => Math.round(laps))).size).toBeGreaterThan(2);
    const evaluated = evaluateShot(shot, NO_ASSETS);
    shot.riders.forEach(({ id }) => {
      const [a, b] = [placeOf(evaluated, id, 1), placeOf(evaluated, id, 97)];
      a.forEach((value, k) => expect(b[k]).toBeCloseTo(value, 6));
    });
  });

  it.each([
    ['one lap', looped(1)],
    [
      'an uneven pace',
      looped(8, [
        { frame: 1, value: 0 },
        { frame: 30, value: 5 },
        { frame: 97, value: 8 },
      ]),
    ],
  ])('are the leader’s with %s', (_, shot) => {
    const formed = formUp(shot, NO_ASSETS, 'k', { ...wedge, vary }).shot;
    expect(formed.riders.slice(1).map(({ attachment }) => attachment?.pacedBy?.rate)).toEqual([1, 1, 1, 1]);
  });
});

describe('a flight behind a leader that rides no path', () => {
  // By hand: 24 m along +Z in two seconds, a second's rest, and 24 m along +X.
  const key = (frame: number, x: number, z: number, turn: [number, number, number, number]) => ({
    frame,
    translation: [x, 3, z],
    rotation: turn,
    ease: 'linear',
  });
  const quarter: [number, number, number, number] = [0, Math.SQRT1_2, 0, Math.SQRT1_2];
  const led = flight({}, {
    ...kestrel,
    attachment: null,
    transformKeys: {
      keys: [key(1, 0, 0, [0, 0, 0, 1]), key(49, 0, 24, [0, 0, 0, 1]), key(97, 24, 24, quarter)],
    },
  } as never);
  const leaderWay = evaluateShot(led, NO_ASSETS);

  it('goes where that went, as far behind and beside as it is told, and straight back before it began', () => {
    const { shot, ids } = formUp(led, NO_ASSETS, 'k', {
      ...wedge,
      arrangement: 'file',
      count: 2,
      spacing: 3,
      vary: { place: 0, time: 0, speed: 0, amplitude: 0 },
    });
    const evaluated = evaluateShot(stored(shot), NO_ASSETS);
    for (const frame of [30, 55, 80]) {
      const gone = poseAt(leaderWay, 'k', frame)[POSE.distance];
      // Frame at which the leader was 3 m behind, by its own board.
      let then = frame;
      while (poseAt(leaderWay, 'k', then)[POSE.distance] > gone - 3) then -= 0.001;
      const [where, wanted] = [placeOf(evaluated, ids[0], frame), placeOf(leaderWay, 'k', then)];
      wanted.forEach((value, k) => expect(where[k]).toBeCloseTo(value, 1));
    }
    const [begin, ahead] = [placeOf(leaderWay, 'k', 1), placeOf(leaderWay, 'k', 1.1)];
    const back = placeOf(evaluated, ids[1], 1);
    const way = Math.hypot(...ahead.map((value, k) => value - begin[k]));
    back.forEach((value, k) => expect(value).toBeCloseTo(begin[k] - (6 * (ahead[k] - begin[k])) / way, 1));
    const abreast = reform(shot, NO_ASSETS, shot.formations[0].id, {
      ...wedge,
      arrangement: 'abreast',
      count: 1,
      vary: { place: 0, time: 0, speed: 0, amplitude: 0 },
    }).shot;
    const beside = placeOf(evaluateShot(abreast, NO_ASSETS), ids[0], 20);
    const leader = placeOf(leaderWay, 'k', 20);
    // To the left of +Z is +X.
    expect(Math.hypot(...beside.map((value, k) => value - leader[k]))).toBeCloseTo(2, 9);
  });

  it('in a loop goes round with a leader that comes back to where it began', () => {
    const square = [
      [1, 0, 0],
      [25, 0, 24],
      [49, 24, 24],
      [73, 24, 0],
      [97, 0, 0],
    ].map(([frame, x, z]) => ({ ...key(frame, x, z, [0, 0, 0, 1]) }));
    const round = flight({ range: { first: 1, last: 96 }, loop: true }, {
      ...kestrel,
      attachment: null,
      transformKeys: { keys: square },
    } as never);
    const none = { place: 0, time: 0, speed: 0, amplitude: 0 };
    const { shot, ids } = formUp(round, NO_ASSETS, 'k', {
      ...wedge,
      arrangement: 'file',
      count: 2,
      spacing: 6,
      vary: none,
    });
    const evaluated = evaluateShot(shot, NO_ASSETS);
    const own = evaluateShot(round, NO_ASSETS);
    const total = poseAt(own, 'k', 97)[POSE.distance];
    for (const [i, id] of ids.entries()) {
      const [begin, after] = [placeOf(evaluated, id, 1), placeOf(evaluated, id, 97)];
      begin.forEach((value, k) => expect(after[k]).toBeCloseTo(value, 6));
      // At the first frame it is where the leader is that far before its end.
      let then = 97;
      while (poseAt(own, 'k', then)[POSE.distance] > total - 6 * (i + 1)) then -= 0.001;
      placeOf(own, 'k', then).forEach((value, k) => expect(begin[k]).toBeCloseTo(value, 1));
    }
  });

  it('stands where it was when its leader is deleted; a frozen leader is followed as one that rides', () => {
    const { shot, ids } = formUp(led, NO_ASSETS, 'k', { ...wedge, count: 1 });
    const after = removeRider(shot, NO_ASSETS, 'k', 40);
    expect(after.riders[0].follow).toBeNull();
    placeOf(evaluateShot(after, NO_ASSETS), ids[0], 5).forEach((value, k) =>
      expect(value).toBeCloseTo(placeOf(evaluateShot(shot, NO_ASSETS), ids[0], 40)[k], 9),
    );
    const circle = withRider(shot, 'k', (rider) => ({ ...rider, parent: ids[0] }));
    expect(() => stored(circle)).toThrow('no circle');
    expect(() => formUp(led, NO_ASSETS, 'k', { ...wedge, arrangement: 'moved' })).toThrow('whole ride');
  });
});

it('a string that is opened again is spaced anew, grows and shrinks at its end; a gap of its own stays', () => {
  const truck: Loose<Rider> = { ...kestrel, id: 'a', name: 'Truck', kind: 'vehicle' };
  const wagon: Loose<Rider> = { id: 'b', name: 'Wagon', badge: 'W2' };
  const bare = shotOf([line(100)], [truck, wagon], { range: { first: 1, last: 97 } } as never);
  const strung = hangString(bare, 'a', { unit: 'b', count: 3, gap: 1 }).shot;
  const chain = (shot: Shot) =>
    unitsBehind(shot.riders, shot.riders[0]).map(({ name, attachment }) => [
      name,
      attachment?.coupledTo?.gap,
    ]);
  const own = withAttachment(strung, strung.riders[2].id, (attachment) => ({
    ...attachment,
    coupledTo: { ...attachment.coupledTo!, gap: 4 },
  }));
  const longer = stored(changeString(own, NO_ASSETS, 'a', { count: 4, gap: 2 }).shot);
  expect(chain(longer)).toEqual([
    ['Wagon', 2],
    ['Wagon 2', 4],
    ['Wagon 3', 2],
    ['Wagon 4', 2],
  ]);
  const evaluated = evaluateShot(longer, NO_ASSETS);
  const z = longer.riders.map(({ id }) => placeOf(evaluated, id, 97)[2]);
  expect(z).toEqual([48, 46, 42, 40, 38].map((value) => expect.closeTo(value, 9)));
  expect(chain(changeString(longer, NO_ASSETS, 'a', { count: 1, gap: 2 }).shot)).toEqual([['Wagon', 2]]);
  expect(() => changeString(bare, NO_ASSETS, 'a', { count: 2, gap: 1 })).toThrow('units behind it');
});
