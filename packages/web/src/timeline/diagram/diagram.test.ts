import {
  GRAVITY,
  POSE,
  compiledPathOf,
  newAttachment,
  newShot,
  type CompiledPath,
  type Pace,
  type Rider,
  type FrameMapping,
} from '@fleet-rail/core';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { comparedTake, wantedAside } from '../../commands/aside';
import { createDesk } from '../../state/desk-store';
import { brokenLine } from './broken-line';
import { linePath } from './line-path';
import { paceGeometry, roundedValue, snappedValue, stretchText } from './pace-geometry';
import { stripLimits, stripLine } from './strip-channel';

const range = { first: 1, last: 97 };
const SAME: FrameMapping = { shown: (frame) => frame, own: (frame) => frame, rate: () => 1 };

/** A rider on a round of 40 m radius that is once round in four seconds, with marks at 30 and 200 m. */
const shot = newShot({
  name: 't',
  range,
  paths: [
    {
      id: 'ring',
      name: 'Ring',
      basis: 'through',
      closed: true,
      points: Array.from({ length: 128 }, (_, i) => ({
        position: [40 * Math.sin((i * Math.PI) / 64), 0, 40 * Math.cos((i * Math.PI) / 64)] as const,
      })).map(({ position }) => ({ position: [...position] as [number, number, number] })),
      marks: [
        { id: 'gate', name: 'Gate', distance: 30 },
        { id: 'barn', name: 'Barn', distance: 200 },
      ],
    },
  ],
  riders: [{ id: 'r', name: 'R', attachment: newAttachment('ring', range) }],
});
const [path] = shot.paths;
const curve = compiledPathOf(path) as CompiledPath;
const [rider] = shot.riders;
const pace = rider.attachment?.pace as Pace;
const x = scaleLinear([1, 97], [50, 242]);
const y = scaleLinear([0, 300], [300, 0]);

describe('the geometry of a pace', () => {
  it('goes from frames and values to pixels and back, in either unit and with an offset along', () => {
    const ahead: Rider = {
      ...rider,
      attachment: rider.attachment && {
        ...rider.attachment,
        offset: { ...rider.attachment.offset, along: 10 },
      },
    };
    for (const [one, along] of [
      [rider, 0],
      [ahead, 10],
    ] as const) {
      const laps = paceGeometry(one, pace, curve.length, x, y, SAME);
      expect(laps.across(49)).toBe(146);
      expect(laps.frameAt(146)).toBe(49);
      expect(laps.up(0.5)).toBeCloseTo(300 - curve.length / 2 - along, 9);
      expect(laps.valueAt(laps.up(0.25))).toBeCloseTo(0.25, 12);
      // A pixel is a metre here.
      expect(laps.valuePerPixel).toBeCloseTo(1 / curve.length, 12);
    }
  });

  it('leaves out what the shot does not show, and takes frames through bent time', () => {
    const late: FrameMapping = {
      shown: (frame) => (frame < 20 ? null : frame + 24),
      own: (frame) => frame - 24,
      rate: () => 1,
    };
    const geometry = paceGeometry(rider, pace, curve.length, x, y, late);
    expect(geometry.across(10)).toBeNull();
    expect(geometry.across(25)).toBe(146);
    expect(geometry.frameAt(146)).toBe(25);
  });

  it('draws a key to a mark that is near, in any lap, and rounds it elsewhere', () => {
    const metres: Pace = { ...pace, unit: 'metres' };
    const geometry = paceGeometry(rider, metres, curve.length, x, y, SAME);
    const snapped = (value: number) => snappedValue(value, metres, geometry, path, curve.length);
    expect(snapped(33)).toBe(30);
    expect(snapped(194)).toBe(200);
    expect(snapped(curve.length + 27)).toBeCloseTo(curve.length + 30, 9);
    expect(snapped(100.123456)).toBe(100.12);
    expect(snappedValue(100, metres, geometry, undefined, 0)).toBe(100);
    expect([roundedValue(1.23456, 'metres'), roundedValue(1.23456, 'laps')]).toEqual([1.23, 1.2346]);
  });

  it('says a stretch’s speed both ways, and a stop’s seconds', () => {
    const key = { ...pace.keys[0], frame: 1, value: 0 };
    expect(stretchText(key, { ...key, frame: 25, value: 0.5 }, 20, 24)).toBe('10.00 m/s · 36.0 km/h');
    expect(stretchText(key, { ...key, frame: 25, value: -0.5 }, 20, 24)).toBe('-10.00 m/s · -36.0 km/h');
    expect(stretchText(key, { ...key, frame: 37 }, 20, 24)).toBe('stop 1.50 s');
    expect(stretchText({ ...key, ease: 'hold' }, { ...key, frame: 37, value: 9 }, 20, 24)).toBe(
      'stop 1.50 s',
    );
  });
});

/** Poses round the ring at given speeds, m/s, at each frame. */
const posesAt = (speeds: readonly number[]) => {
  let distance = 0;
  return Float64Array.from(
    speeds.flatMap((speed) => {
      const pose = new Array<number>(POSE.size).fill(0);
      pose[POSE.distance] = distance += speed / 24;
      pose[POSE.speed] = speed;
      return pose;
    }),
  );
};

describe('the strip', () => {
  const poses = posesAt(Array.from({ length: 25 }, (_, i) => 4 + i / 4));
  const rising = { poses, sideways: Float64Array.from({ length: 25 }, (_, i) => i * GRAVITY) };

  it('shows speed, what it changes by, and what presses sideways in a bend', () => {
    const speed = stripLine('speed', rising, { step: 1 }, 24);
    expect([speed.low, speed.high]).toEqual([4, 10]);
    // 6 m/s more in a second.
    const acceleration = stripLine('acceleration', rising, { step: 1 }, 24);
    acceleration.values.forEach((value) => expect(value).toBeCloseTo(6, 9));
    const sideways = stripLine('sideways', { ...rising, poses: poses.slice() }, { step: 1 }, 24);
    expect([sideways.low, sideways.high]).toEqual([0, 24]);
  });

  it('shows the limits of a drive in the strip’s own unit', () => {
    const drive = { ...pace.drive, top: 9, accelerate: 2, brake: 3, sideways: GRAVITY / 2 };
    expect(stripLimits('speed', drive)).toEqual([9]);
    expect(stripLimits('acceleration', drive)).toEqual([2, -3]);
    expect(stripLimits('sideways', drive)).toEqual([0.5, -0.5]);
  });

  it('is kept while nothing it follows from changes', () => {
    const once = stripLine('speed', rising, { step: 1 }, 24);
    expect(stripLine('speed', rising, { step: 1 }, 24)).toBe(once);
    expect(stripLine('acceleration', rising, { step: 1 }, 24)).not.toBe(once);
    expect(stripLine('speed', { ...rising, poses: poses.slice() }, { step: 1 }, 24)).not.toBe(once);
  });
});

it('lines are those that d3 draws', () => {
  const draw = line().digits(2);
  const places = Array.from({ length: 40 }, (_, i): [number, number] => [i * 1.2345, 300 - 17 * Math.sin(i)]);
  for (const count of [0, 1, 2, 40])
    expect(brokenLine(places.slice(0, count))).toBe(draw(places.slice(0, count)) ?? '');
});

it('lines go through their samples, and are made anew for other scales alone', () => {
  const poses = posesAt([24, 24, 24]);
  const from = { first: 1, step: 1 };
  const drawn = linePath(poses, 'distances', from, x, y, 600);
  // A metre a frame: two pixels across, one up.
  expect(drawn).toBe('M50,299L52,298L54,297');
  expect(linePath(poses, 'distances', from, x, y.copy().domain([0, 600]), 600)).toBe(
    'M50,299.5L52,299L54,298.5',
  );
  expect(linePath(Float64Array.of(10, 20), 'values', from, x, y, 600)).toBe('M50,290L52,280');
});

describe('a take that is compared with', () => {
  const other: Pace = { ...pace, keys: [pace.keys[0], { ...pace.keys[1], value: 2 }] };
  const kept = newShot({
    ...shot,
    riders: [
      { ...rider, attachment: { ...newAttachment('ring', range), takes: [{ name: 'Twice', pace: other }] } },
    ],
  });

  it('is asked for as the rider has it in that take, and nothing else of the shot', () => {
    const desk = createDesk(kept);
    desk.getState().set({ take: 0 });
    const wanted = wantedAside(desk.getState());
    expect(wanted?.riders).toEqual(['r']);
    expect(wanted?.shot.riders[0].attachment?.pace.keys[1].value).toBe(2);
    expect(kept.riders[0].attachment?.pace.keys[1].value).toBe(1);
    // The same for as long as nothing changes, so that it is evaluated once.
    desk.getState().goToFrame(20);
    expect(wantedAside(desk.getState())).toBe(wanted);
  });

  it('is shown as soon as it is evaluated', () => {
    const poses = new Map([['r', new Float64Array(2 * POSE.size)]]);
    const aside = { shot: kept, first: 1, step: 96, poses };
    expect(comparedTake({ shot: kept, riderId: 'r', take: 0, aside: null })).toBeNull();
    expect(comparedTake({ shot: kept, riderId: 'r', take: 0, aside })).toMatchObject({
      name: 'Twice',
      step: 96,
    });
  });

  it('is none where none is chosen, or there is none', () => {
    const desk = createDesk(kept);
    for (const take of [null, 1]) {
      desk.getState().set({ take });
      expect(wantedAside(desk.getState())).toBeNull();
    }
  });
});
