import { newShot, type Vec3 } from '@fleet-rail/core';
import { groundHeightOf } from '../workers/scene-assets/ground-height';
import { OPERATIONS, type OperationKind } from '../workers/operations/operation';
import { previewOperation } from '../workers/operations/preview';
import { createDesk } from '../state/desk-store';
import { acceptOperation, cancelOperation, startOperation } from './operate';

const places = (...list: Vec3[]) => list.map((position) => ({ position }));
const shot = newShot({
  name: 't',
  paths: [
    {
      id: 'a',
      name: 'A',
      basis: 'through',
      points: places([0, 0, 0], [4, 1, 6], [0, 0, 12]),
      transform: { translation: [0, 0, 1], rotation: [0, 0, 0, 1], scale: [1, 1, 1] },
    },
    { id: 'b', name: 'B', basis: 'polyline', points: places([0, 0, 30], [0, 0, 40]) },
    {
      id: 'round',
      name: 'Round',
      basis: 'bezier',
      closed: true,
      points: places([0, 0, 0], [9, 0, 0], [9, 0, 9]),
    },
    // Only straight runs have corners of a radius.
    { id: 'runs', name: 'Runs', basis: 'polyline', points: places([0, 0, 50], [9, 0, 50], [9, 0, 59]) },
  ],
});

/** Puts the preview of what is being set up in place, as the worker does. */
function work(desk: ReturnType<typeof createDesk>): void {
  const { operation, shot: now, set } = desk.getState();
  if (operation === null) throw new Error('nothing is being set up');
  set({ preview: { shot: now, operation, preview: previewOperation(now, operation, groundHeightOf(null)) } });
}

it.each(Object.keys(OPERATIONS) as OperationKind[])('%s begins with settings that give something', (kind) => {
  const desk = createDesk(shot);
  desk.getState().set({
    pathId: kind === 'corners' ? 'runs' : ['first', 'open', 'unlink'].includes(kind) ? 'round' : 'a',
  });
  startOperation(desk, kind);
  const { operation: begun, set } = desk.getState();
  // By nothing is how a move begins.
  if (begun?.kind === 'move') set({ operation: { ...begun, by: [1, 0, 0] } });
  work(desk);
  expect(acceptOperation(desk)).toBe(true);
  const { past, operation, preview } = desk.getState();
  expect(past.map(({ label }) => label)).toEqual([OPERATIONS[kind].name]);
  expect([operation, preview]).toEqual([null, null]);
  desk.getState().undo();
  expect(desk.getState().shot).toBe(shot);
});

it('nothing is accepted that is not what is shown', () => {
  const desk = createDesk(shot);
  startOperation(desk, 'thin');
  expect(acceptOperation(desk)).toBe(false);
  work(desk);
  const { operation, set } = desk.getState();
  if (operation?.kind !== 'thin') throw new Error('not thinning');
  set({ operation: { ...operation, tolerance: 2 } });
  expect(acceptOperation(desk)).toBe(false);
  expect(desk.getState().shot).toBe(shot);
});

it('a problem is not accepted, and cancelling leaves the shot as it was', () => {
  const desk = createDesk(shot);
  startOperation(desk, 'split');
  const { operation, set } = desk.getState();
  if (operation === null) throw new Error('nothing is being set up');
  set({ preview: { shot, operation, problem: 'no' } });
  expect(acceptOperation(desk)).toBe(false);
  cancelOperation(desk);
  expect(desk.getState()).toMatchObject({ operation: null, preview: null, shot });
});

it('a copy is selected, a split keeps the first part selected', () => {
  const desk = createDesk(shot);
  startOperation(desk, 'offset');
  work(desk);
  acceptOperation(desk);
  expect(desk.getState().pathId).toBe('a-lane');
  desk.getState().set({ pathId: 'a' });
  startOperation(desk, 'split');
  work(desk);
  acceptOperation(desk);
  expect(desk.getState().pathId).toBe('a');
});
