import { newShot } from '@fleet-rail/core';
import { jest } from '@jest/globals';
import { DeferredStore } from './deferred-store';
import { createDesk } from './desk-store';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

function opened() {
  const desk = createDesk(newShot({ name: 'First' }));
  const calm = new DeferredStore(desk);
  const stop = calm.follow();
  const told: string[] = [];
  calm.store.subscribe((state) => told.push(`${state.shot.name} ${state.frame}`));
  const name = (to: string) => desk.getState().edit('Rename', (shot) => ({ ...shot, name: to }));
  return { desk, calm, stop, told, name };
}

it('tells at once while nothing is held', () => {
  const { told, name } = opened();
  name('Second');
  expect(told).toEqual(['Second 1']);
});

it('while something is held it tells when the hand rests, once and of the newest; what is asked for is always the newest', () => {
  const { calm, told, name } = opened();
  calm.hold();
  for (const to of ['a', 'b', 'c']) {
    name(to);
    jest.advanceTimersByTime(50);
    expect(calm.store.getState().shot.name).toBe(to);
  }
  expect(told).toEqual([]);
  jest.advanceTimersByTime(1_000);
  expect(told).toEqual(['c 1']);
});

it('a hand that never rests is told of all the same, and what is let go of is not forgotten', () => {
  const { calm, told, name } = opened();
  calm.hold();
  for (let i = 0; i < 30; i++) {
    name(String(i));
    jest.advanceTimersByTime(50);
  }
  expect(told.length).toBe(1);
  calm.release();
  jest.advanceTimersByTime(1_000);
  expect(told.at(-1)).toBe('29 1');
});

it('frames that are played are told when they stop', () => {
  const { desk, told } = opened();
  desk.getState().set({ playing: true });
  told.length = 0;
  for (const frame of [2, 3, 4]) desk.getState().set({ frame });
  expect(told).toEqual([]);
  desk.getState().set({ playing: false });
  expect(told).toEqual(['First 4']);
});

it('when it is no longer followed nothing is told', () => {
  const { calm, stop, told, name } = opened();
  calm.hold();
  name('Late');
  stop();
  jest.advanceTimersByTime(5_000);
  expect(told).toEqual([]);
});
