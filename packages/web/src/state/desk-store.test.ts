import { newShot } from '@fleet-rail/core';
import { changePath } from '../edits/path-edits';
import { createDesk } from './desk-store';
import { shownChannel } from './selection';

const shot = newShot({
  name: 'one',
  paths: [{ id: 'a', name: 'A', points: [{ position: [0, 0, 0] }, { position: [1, 0, 0] }] }],
});
const rename = (name: string) => changePath('a', (path) => ({ ...path, name }));
const nameOf = (desk: ReturnType<typeof createDesk>) => desk.getState().shot.paths[0].name;

it('undo and redo walk through documents, the very same objects', () => {
  const desk = createDesk(shot);
  desk.getState().edit('Rename', rename('B'));
  const b = desk.getState().shot;
  desk.getState().edit('Rename', rename('C'));
  desk.getState().undo();
  expect(desk.getState().shot).toBe(b);
  desk.getState().undo();
  expect(desk.getState().shot).toBe(shot);
  desk.getState().undo();
  expect(desk.getState().shot).toBe(shot);
  desk.getState().redo();
  desk.getState().redo();
  expect(nameOf(desk)).toBe('C');
});

it('all values of one drag are one step', () => {
  const desk = createDesk(shot);
  for (const name of ['B', 'C', 'D']) desk.getState().edit('Rename', rename(name), 'drag 1');
  for (const name of ['E', 'F']) desk.getState().edit('Rename', rename(name), 'drag 2');
  desk.getState().undo();
  expect(nameOf(desk)).toBe('D');
  desk.getState().undo();
  expect(nameOf(desk)).toBe('A');
});

it('a new edit after undo drops what was undone', () => {
  const desk = createDesk(shot);
  desk.getState().edit('Rename', rename('B'));
  desk.getState().undo();
  desk.getState().edit('Rename', rename('C'));
  desk.getState().redo();
  expect(nameOf(desk)).toBe('C');
});

it('an edit that changes nothing is no step', () => {
  const desk = createDesk(shot);
  desk.getState().edit('Nothing', (same) => same);
  expect(desk.getState().past).toHaveLength(0);
});

it('the selection lets go of what is no longer there', () => {
  const desk = createDesk(shot);
  desk.getState().set({ points: new Set([1]) });
  desk.getState().edit('Delete', (before) => ({ ...before, paths: [] }));
  expect(desk.getState().pathId).toBeNull();
  expect(desk.getState().points.size).toBe(0);
});

it('chosen keys are those of the line that is shown: another line has none chosen', () => {
  const rides = newShot({
    name: 'lines',
    paths: shot.paths,
    riders: [{ id: 'r', name: 'R', attachment: { path: 'a', pace: { keys: [{ frame: 1, value: 0 }] } } }],
  });
  const desk = createDesk(rides);
  desk.getState().set({ keys: new Set([0]) });
  desk.getState().set({ line: 'side' });
  expect([...desk.getState().keys]).toEqual([]);
  const [rider] = rides.riders;
  expect(shownChannel(rider, 'side')).toBe('side');
  // A rider without a camera has no focal length: its distance is shown.
  expect([shownChannel(rider, 'focal'), shownChannel(rider, 'distance'), shownChannel(null, 'side')]).toEqual(
    [null, null, null],
  );
  desk.getState().set({ line: 'distance', keys: new Set([0]) });
  expect([...desk.getState().keys]).toEqual([0]);
});
