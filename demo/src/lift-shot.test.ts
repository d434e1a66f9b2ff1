import {
  POSE,
  checkShot,
  evaluateShot,
  parseShot,
  type EvaluatedShot,
  type Shot,
  type Vec3,
} from '@fleet-rail/core';
import { assetsOf, checkSceneOf } from '@fleet-rail/core/formats';
import { liftShot } from './lift-shot.js';
import { documentsOf, orchardShot } from './orchard-shot.js';

describe('a lift', () => {
  let shot: Shot;
  let evaluated: EvaluatedShot;
  beforeAll(async () => {
    shot = await liftShot(await orchardShot());
    const documents = await documentsOf(shot.models);
    evaluated = evaluateShot(shot, await assetsOf(shot, documents));
  });
  const poseOf = (id: string, frame: number): Float64Array => {
    const pose = new Float64Array(POSE.size);
    evaluated.poses[shot.riders.findIndex((rider) => rider.id === id)](frame, pose, 0);
    return pose;
  };
  const at = (id: string, frame: number): Vec3 => [...poseOf(id, frame).subarray(0, 3)] as Vec3;
  const apart = (a: Vec3, b: Vec3) => Math.hypot(...a.map((value, k) => value - b[k]));

  it('is sound: accepted as a document, and without a finding', async () => {
    // Dust in what was baked is nought when it is read.
    const stored = parseShot(JSON.parse(JSON.stringify(shot)));
    expect(parseShot(JSON.parse(JSON.stringify(stored)))).toEqual(stored);
    const scene = checkSceneOf(shot, await documentsOf(shot.models));
    const found = checkShot(evaluated, scene).filter(({ dismissed }) => dismissed === null);
    expect(found.map(({ message }) => message)).toEqual([]);
  });

  it('has the picker wait for the hauler to stop, ride on its load, and get off where it got on, without a jump', () => {
    const [hauler] = shot.riders;
    const [rows, again] = evaluated.timing(hauler)?.stops ?? [];
    const [on, off] = shot.riders.find(({ id }) => id === 'picker')!.parentKeys.map(({ frame }) => frame);
    expect([on > rows.from, on < rows.to, off > again.from, off < again.to]).toEqual([
      true,
      true,
      true,
      true,
    ]);
    // It has not moved before the hauler stopped.
    expect(apart(at('picker', rows.from), at('picker', 1))).toBeLessThan(1e-6);
    const seat = (frame: number) => {
      const [x, y, z] = at('picker', frame);
      return apart([x, y, z], at('hauler', frame));
    };
    for (const frame of [on + 40, 700, off - 1]) expect(seat(frame)).toBeCloseTo(Math.hypot(1.83, 0.2), 9);
    expect(apart(at('picker', on), at('picker', off + 22))).toBeLessThan(0.02);
    for (let frame = on - 2; frame <= off + 40; frame++) {
      const moved = apart(at('picker', frame + 1), at('picker', frame));
      const carried = apart(at('hauler', frame + 1), at('hauler', frame));
      expect(moved).toBeLessThan(Math.max(0.4, carried + 0.1));
    }
  });

  it('moves the kestrel by hand, three after it; freezes the drone; cuts to the tripod', () => {
    const goesAfter = shot.riders.filter(({ follow }) => follow?.rider === 'kestrel');
    expect(goesAfter.length).toBe(3);
    for (const { id } of goesAfter) expect(apart(at(id, 600), at('kestrel', 600))).toBeLessThan(9);
    expect(shot.riders.flatMap(({ id, frozen }) => (frozen ? [id] : []))).toEqual(['drone']);
    const [stop] = evaluated.timing(shot.riders[0])?.stops ?? [];
    expect(evaluated.cuts().map(({ camera }) => camera)).toEqual(['drone', 'tripod', 'drone']);
    expect(evaluated.cuts()[1].frame).toBe(Math.ceil(stop.from - 24));
  });
});
