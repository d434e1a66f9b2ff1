import { newShot } from '@fleet-rail/core';
import { edited, newHistory, redone, undone, type History } from './history';

const begun = newHistory(newShot({ name: 'One', fps: 24 }));
const renamed = (history: History, name: string, gesture?: string) =>
  edited(history, 'Rename', (shot) => ({ ...shot, name }), gesture);

it('an edit that says what stands already is no step', () => {
  expect(renamed(begun, 'One')).toBeNull();
  expect(edited(begun, 'Copy', (shot) => structuredClone(shot))).toBeNull();
});

it('all values of a gesture are one step, and one that comes back to its beginning none', () => {
  const moved = renamed(renamed(begun, 'Two', 'drag') as History, 'Three', 'drag') as History;
  expect(moved.past.map(({ shot }) => shot.name)).toEqual(['One']);
  const back = renamed(moved, 'One', 'drag') as History;
  expect(back).toEqual({ ...begun, gesture: null });
  expect(back.shot).toBe(begun.shot);
  // The same hand goes on: that is a step again.
  expect((renamed(back, 'Four', 'drag') as History).past).toHaveLength(1);
});

it('undo and redo walk the same documents, and an edit ends what could be redone', () => {
  const two = renamed(begun, 'Two') as History;
  const one = undone(two) as History;
  expect(one.shot).toBe(begun.shot);
  expect((redone(one) as History).shot).toBe(two.shot);
  expect(redone(renamed(one, 'Three') as History)).toBeNull();
  expect(undone(begun)).toBeNull();
});
