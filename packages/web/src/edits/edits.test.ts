import { NO_ASSETS, withKey } from '@fleet-rail/core';
import {
  newAttachment,
  newShot,
  parseShot,
  withRider,
  type Axis,
  type Shot,
  type Vec3,
} from '@fleet-rail/core';
import type { KeptModel } from '../api/models';
import { drawnPath } from './drawn-path';
import { addMark, addPaths, deletePath, deletePathPoints, freePathName, movePathPoints } from './path-edits';
import {
  addRider,
  aimAt,
  cutTo,
  foundAxes,
  moveCut,
  placeKey,
  removeCut,
  replaceModel,
  withoutRig,
} from './rider-edits';

const model = (name: string, nodes: string[] = [], forward: Axis = '+z'): KeptModel => ({
  id: `asset-${name}`,
  name,
  fileName: `${name}.glb`,
  bytes: 1,
  shipped: false,
  facts: {
    version: 1,
    nodes,
    places: nodes.map(() => [0, 0, 0]),
    clips: [],
    low: [0, 0, 0],
    high: [1, 1, 1],
    triangles: 0,
    unit: 'm',
    placing: { scale: 1, translation: [0, 0, 0], rotation: [0, 0, 0, 1] },
    skinned: false,
    facing: { forward, up: '+y', confidence: 1, because: 'told', chassis: null },
    rig: { wheels: [], steering: { node: null, axis: '+z' }, body: null, ball: null },
    gaits: [],
    morphs: [],
  },
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

function ridingShot(): { shot: Shot; id: string } {
  const added = addRider(base, model('Hauler', ['wheel_1']));
  const attachment = newAttachment('lane', added.shot.range);
  return { shot: withRider(added.shot, added.id, (rider) => ({ ...rider, attachment })), id: added.id };
}

it('a vehicle has the wheels of its model, which can be left out; what only has a round part does not', () => {
  const wheels = ['a', 'b', 'c', 'd'].map((node) => ({
    node,
    centre: [0, 0.4, 0] as Vec3,
    radius: 0.4,
    axle: '+x' as const,
    steers: node < 'c',
    drives: node > 'b',
  }));
  const rolling = (name: string, nodes: string[], count: number) => {
    const plain = model(name, nodes);
    const rig = { ...plain.facts.rig, wheels: wheels.slice(0, count), body: 'b' };
    return { ...plain, facts: { ...plain.facts, rig } } as typeof plain;
  };
  const named = addRider(base, rolling('Bike', ['wheel_1'], 2));
  const odd = addRider(base, rolling('Wagon', ['n1'], 4));
  const barrel = addRider(base, rolling('Barrel', ['n1'], 1));
  expect(
    [named, odd, barrel].map(({ shot: { riders } }) => [riders[0].kind, riders[0].wheels.length]),
  ).toEqual([
    ['vehicle', 2],
    ['vehicle', 4],
    ['prop', 0],
  ]);
  const [bare] = withoutRig(odd.id)(odd.shot).riders;
  expect([bare.wheels, bare.body.node]).toEqual([[], null]);
});

describe('edits give documents that the server accepts', () => {
  const { shot, id } = ridingShot();
  const results: [string, Shot][] = [
    ['add path', addPaths(base, [drawnPath('Path', clicked([0, 0, 0], [1, 0, 2]), false, 'bezier')]).shot],
    ['attach', shot],
    ['add a camera', addRider(base, model('Drone', ['lens'])).shot],
    ['aim', aimAt(id, { point: [1, 2, 3] })(shot)],
    ['delete path', deletePath(shot, NO_ASSETS, 'lane', 'back', 1)],
    ['delete path, riders stay', deletePath(shot, NO_ASSETS, 'lane', 'stay', 120)],
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
  const { shot } = ridingShot();
  const after = deletePath(shot, NO_ASSETS, 'lane', 'back', 1);
  expect(after.riders[0].attachment).toBeNull();
  expect(after.riders[0].rest).toEqual(shot.riders[0].rest);
});

it('another model brings its own axes where those of the old one were taken, and leaves all else', () => {
  const [cart, van] = [model('Cart', [], '+x'), model('Van', [], '-z')];
  const { shot, id } = addRider(base, cart);
  const attachment = newAttachment('lane', shot.range);
  const axes = foundAxes(shot, [cart]).get(id);
  expect(axes).toEqual({ forward: '+x', up: '+y' });
  const ridden = withRider(shot, id, (rider) => ({
    ...rider,
    attachment: {
      ...attachment,
      facing: { ...attachment.facing, ...axes },
      offset: { ...attachment.offset, rise: 2 },
    },
  }));
  const replaced = replaceModel(id, van, cart)(ridden);
  expect(replaced.riders[0].attachment).toMatchObject({ facing: { forward: '-z' }, offset: { rise: 2 } });
  expect(replaced.models.map(({ name }) => name)).toEqual(['Cart', 'Van']);
  // Axes that were set by hand stay.
  const byHand = withRider(ridden, id, (rider) => ({
    ...rider,
    attachment: rider.attachment && {
      ...rider.attachment,
      facing: { ...rider.attachment.facing, forward: '+z' as const },
    },
  }));
  expect(replaceModel(id, van, cart)(byHand).riders[0].attachment?.facing.forward).toBe('+z');
});

it('an aim that would go round in a circle is refused with the names', () => {
  const { shot, id } = ridingShot();
  const other = addRider(shot, model('Drone', ['lens']));
  const onLane = withRider(other.shot, other.id, (rider) => ({
    ...rider,
    attachment: newAttachment('lane', shot.range),
  }));
  const once = aimAt(other.id, { rider: id })(onLane);
  expect(() => aimAt(id, { rider: other.id })(once)).toThrow('Hauler → Drone → Hauler');
});

it('cuts stand in order of frame, one a frame', () => {
  const { shot, id } = addRider(base, model('Drone', ['lens']));
  const cut = [cutTo(id, 40), cutTo(id, 1), cutTo(id, 40)].reduce((before, edit) => edit(before), shot);
  expect(parseShot(cut).cuts.map(({ frame }) => frame)).toEqual([1, 40]);
  expect(moveCut(1, 90)(cut).cuts.map(({ frame }) => frame)).toEqual([39, 40]);
  expect(moveCut(40, -5)(cut).cuts.map(({ frame }) => frame)).toEqual([1, 2]);
  expect(moveCut(7, 9)(cut)).toBe(cut);
  expect(removeCut(1)(cut).cuts.map(({ frame }) => frame)).toEqual([40]);
  expect(withKey([{ frame: 5 }, { frame: 9 }], { frame: 7 })).toEqual([
    { frame: 5 },
    { frame: 7 },
    { frame: 9 },
  ]);
});

it('riders of a deleted path stay where they were at the frame, when that is asked', () => {
  const { shot } = ridingShot();
  const after = deletePath(shot, NO_ASSETS, 'lane', 'stay', 120.5);
  expect(after.riders[0].attachment).toBeNull();
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
  const { shot, id } = ridingShot();
  const after = placeKey(id, 0, 500, 0.25)(shot);
  expect(after.riders[0].attachment?.pace.keys.map((key) => key.frame)).toEqual([239, 240]);
});

it('softly moved, points within the radius are taken along, handles as they were', () => {
  const path = { ...base.paths[0], basis: 'bezier' as const };
  const shot = { ...base, paths: [path] };
  // 10 m apart: of a radius of 20 m half of the move.
  const [soft] = movePathPoints('lane', new Set([1]), [4, 0, 0], 20)(shot).paths;
  expect(soft.points.map(({ position }) => position)).toEqual([
    [2, 0, 0],
    [4, 0, 10],
  ]);
  expect(soft.points.map(({ in: before, out }) => [before, out])).toEqual(
    path.points.map(({ in: before, out }) => [before, out]),
  );
});

it('only the chosen points move, and the path before is left as it was', () => {
  const moved = movePathPoints('lane', new Set([1]), [1, 2, 3], 0)(base).paths[0];
  expect(moved.points.map(({ position }) => position)).toEqual([
    [0, 0, 0],
    [1, 2, 13],
  ]);
  expect(moved.points[0]).toBe(base.paths[0].points[0]);
  expect(base.paths[0].points[1].position).toEqual([0, 0, 10]);
});
