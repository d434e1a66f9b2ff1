import { newHitch, newShot, parseShot, type Shot } from '@fleet-rail/core';
import type { KeptModel } from '../api/models';
import { addPaths, deletePath, drawnPath, freePathName, turnPathRound } from './path-edits';
import { addRider, attachRider, deleteRider, detachRider, detachRiderHere, placeKey } from './rider-edits';

const model = (name: string, nodes: string[] = []): KeptModel => ({
  id: `asset-${name}`,
  name,
  fileName: `${name}.glb`,
  bytes: 1,
  shipped: false,
  facts: { nodes, clips: [], low: [0, 0, 0], high: [1, 1, 1], triangles: 0, skinned: false },
});

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
    [
      'add path',
      addPaths(base, [
        drawnPath(
          'Path',
          [
            [0, 0, 0],
            [1, 0, 2],
          ],
          false,
        ),
      ]).shot,
    ],
    ['attach', shot],
    ['detach', detachRider(id)(shot)],
    ['detach here', detachRiderHere(id, 120)(shot)],
    ['delete rider', deleteRider(id)(shot)],
    ['delete path', deletePath('lane')(shot)],
    ['turn round', turnPathRound('lane')(shot)],
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
  const first = addPaths(base, [
    drawnPath(
      'Path',
      [
        [0, 0, 0],
        [1, 0, 0],
      ],
      false,
    ),
  ]).shot;
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
  const after = deletePath('lane')(shot);
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

it('a mark keeps its place on the ground when its path is turned round', () => {
  const after = turnPathRound('lane')(base);
  expect(after.paths[0].marks[0].distance).toBeCloseTo(8, 12);
  expect(after.paths[0].points[0].position).toEqual([0, 0, 10]);
});

it('a key stops one frame short of its neighbour', () => {
  const { shot, id } = withRider();
  const after = placeKey(id, 0, 500, 0.25)(shot);
  expect(after.riders[0].hitch?.pace.keys.map((key) => key.frame)).toEqual([239, 240]);
});
