import { newHitch, newShot, parseShot, type Shot, type Vec3 } from '@fleet-rail/core';
import type { KeptModel } from '../api/models';
import { drawnPath } from './drawn-path';
import { addMark, addPaths, deletePath, deletePathPoints, freePathName, movePathPoints } from './path-edits';
import { addRider, attachRider, deleteRider, detachRider, detachRiderHere, placeKey } from './rider-edits';

const model = (name: string, nodes: string[] = []): KeptModel => ({
  id: `asset-${name}`,
  name,
  fileName: `${name}.glb`,
  bytes: 1,
  shipped: false,
  facts: { nodes, clips: [], low: [0, 0, 0], high: [1, 1, 1], triangles: 0, skinned: false },
});

const clicked = (...places: Vec3[]) => places.map((position) => ({ position, straight: false }));

const base = newShot({
  name: 'edits',
  paths: [
    {
      id: 'lane',
      name: 'Lane',
      basis: 'polyline',
      points: [{ position: [0, 0, 0] }, { position: [0, 0, 10] }],
      marks: [{ id: 'gate', name: 'Gate', distance: 2 }],
    },
  ],
});

function withRider(): { shot: Shot; id: string } {
  const added = addRider(base, model('Hauler', ['wheel_1']));
  return { shot: attachRider(added.id, 'lane')(added.shot), id: added.id };
}

describe('edits give documents that the server accepts', () => {
  const { shot, id } = withRider();
  const results: [string, Shot][] = [
    ['add path', addPaths(base, [drawnPath('Path', clicked([0, 0, 0], [1, 0, 2]), false, 'bezier')]).shot],
    ['attach', shot],
    ['detach', detachRider(id)(shot)],
    ['detach here', detachRiderHere(id, 120)(shot)],
    ['delete rider', deleteRider(id)(shot)],
    ['delete path', deletePath('lane', 'back', 1)(shot)],
    ['delete path, riders stay', deletePath('lane', 'stay', 120)(shot)],
    ['delete points', deletePathPoints('lane', new Set([0]))(shot)],
    ['add mark', addMark('lane', 3)(shot)],
    ['place key', placeKey(id, 0, 500, 0.2)(shot)],
  ];
  it.each(results)('%s', (_, after) => {
    expect(parseShot(JSON.parse(JSON.stringify(after)))).toEqual(after);
  });
});

it('a path of the same id is added under another', () => {
  const { ids, shot } = addPaths(base, [base.paths[0]]);
  expect(ids).toEqual(['lane-2']);
  expect(shot.paths[0]).toBe(base.paths[0]);
});

it('drawn paths are named apart', () => {
  const first = addPaths(base, [drawnPath('Path', clicked([0, 0, 0], [1, 0, 0]), false, 'bezier')]).shot;
  expect(freePathName(base)).toBe('Path');
  expect(freePathName(first)).toBe('Path 2');
});

it('a model is listed once however many riders wear it, and each rider has its own badge and colour', () => {
  const one = addRider(base, model('Hauler', ['wheel_1']));
  const two = addRider(one.shot, model('Hauler', ['wheel_1']));
  expect(two.shot.models).toHaveLength(1);
  expect(two.shot.riders.map((rider) => rider.badge)).toEqual(['H1', 'H2']);
  expect(two.shot.riders.map((rider) => rider.color)).toEqual([0, 1]);
  expect(two.shot.riders[0].kind).toBe('vehicle');
});

it('deleting a path never strands what rode it', () => {
  const { shot } = withRider();
  const after = deletePath('lane', 'back', 1)(shot);
  expect(after.riders[0].hitch).toBeNull();
  expect(after.riders[0].rest).toEqual(shot.riders[0].rest);
});

it('deleting a rider clears what pointed at it', () => {
  const { shot, id } = withRider();
  const other = addRider(shot, model('Drone'));
  const aiming: Shot = {
    ...other.shot,
    riders: other.shot.riders.map((rider) => {
      if (rider.id !== other.id) return rider;
      const hitch = newHitch('lane', shot.range);
      return {
        ...rider,
        parent: id,
        hitch: { ...hitch, facing: { ...hitch.facing, target: { rider: id } } },
      };
    }),
  };
  const after = parseShot(deleteRider(id)(aiming));
  expect(after.riders).toHaveLength(1);
  expect(after.riders[0].parent).toBeNull();
  expect(after.riders[0].hitch?.facing.target).toBeNull();
});

it('riders of a deleted path stay where they were at the frame, when that is asked', () => {
  const { shot } = withRider();
  const after = deletePath('lane', 'stay', 120.5)(shot);
  expect(after.riders[0].hitch).toBeNull();
  // Halfway through frames 1 to 240 of a ten metre lane.
  expect(after.riders[0].rest.translation[2]).toBeCloseTo(5, 9);
});

it('a straight run between bends is straight, and the bends leave in line with it', () => {
  const places = clicked([0, 0, 0], [0, 0, 4], [0, 0, 10], [6, 0, 12]);
  places[2].straight = true;
  const path = drawnPath('Path', places, false, 'through');
  expect(path.basis).toBe('bezier');
  expect(path.points[1]).toMatchObject({ handles: 'smooth', out: [0, 0, 2] });
  expect(path.points[2]).toMatchObject({ handles: 'smooth', in: [0, 0, -2] });
  expect(path.points[2].out[0]).toBeCloseTo(0, 12);
  expect(path.points[2].out[2]).toBeCloseTo(Math.hypot(6, 2) / 3, 12);
});

it('a key stops one frame short of its neighbour', () => {
  const { shot, id } = withRider();
  const after = placeKey(id, 0, 500, 0.25)(shot);
  expect(after.riders[0].hitch?.pace.keys.map((key) => key.frame)).toEqual([239, 240]);
});

it('only the chosen points move, and the path before is left as it was', () => {
  const moved = movePathPoints('lane', new Set([1]), [1, 2, 3])(base).paths[0];
  expect(moved.points.map(({ position }) => position)).toEqual([
    [0, 0, 0],
    [1, 2, 13],
  ]);
  expect(moved.points[0]).toBe(base.paths[0].points[0]);
  expect(base.paths[0].points[1].position).toEqual([0, 0, 10]);
});
