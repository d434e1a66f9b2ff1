/** @jest-environment jsdom */
import { jest } from '@jest/globals';
import { DrawSchedule } from './draw-schedule';

/** A schedule by the hand: frames of the page, the graphics side and time go on as the test says. */
function byHand() {
  const log: string[] = [];
  const waiting: (() => void)[] = [];
  const given = { isNew: false, grows: false, otherAtRest: false };
  const schedule = new DrawSchedule(
    {
      hasNew: () => given.isNew,
      prepare: () => void log.push('prepare'),
      draw: (first, rests) => {
        log.push(first ? 'first' : rests ? 'at rest' : 'draw');
        return given.grows;
      },
      rest: () => given.otherAtRest,
    },
    (goOn) => waiting.push(goOn),
  );
  return {
    schedule,
    given,
    /** What happened until the next frame of the page. */
    frame: () => {
      jest.advanceTimersToNextFrame();
      return log.splice(0);
    },
    /** What happens once the graphics side is done. */
    done: () => {
      waiting.shift()?.();
      return log.splice(0);
    },
    waits: () => waiting.length,
    quiet: (ms: number) => {
      jest.advanceTimersByTime(ms);
      return log.splice(0);
    },
  };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

it('draws once a frame however often it is asked, at first the quick picture and then all', () => {
  const { schedule, frame } = byHand();
  schedule.ask();
  schedule.ask();
  expect(frame()).toEqual(['first']);
  expect(frame()).toEqual(['draw']);
  expect(frame()).toEqual([]);
  schedule.ask();
  schedule.ask();
  expect(frame()).toEqual(['draw']);
  expect(frame()).toEqual([]);
});

it('what is new is asked for when the graphics side is done, and drawn when that is there', () => {
  const { schedule, given, frame, done, waits } = byHand();
  schedule.ask();
  given.isNew = true;
  expect(frame()).toEqual(['first']);
  expect(frame()).toEqual([]);
  // Asked meanwhile, it waits once.
  schedule.ask();
  expect(frame()).toEqual([]);
  expect(waits()).toBe(1);
  expect(done()).toEqual(['prepare']);
  given.isNew = false;
  expect(done()).toEqual(['draw']);
  schedule.ask();
  expect(frame()).toEqual(['draw']);
});

it('after a picture by something new the next is waited for as well', () => {
  const { schedule, given, frame, done } = byHand();
  given.grows = true;
  schedule.ask();
  expect(frame()).toEqual(['first']);
  given.grows = false;
  expect(frame()).toEqual([]);
  expect([...done(), ...done()]).toEqual(['prepare', 'draw']);
  schedule.ask();
  expect(frame()).toEqual(['draw']);
});

it('draws what takes longer when nothing has changed for a moment, once', () => {
  const { schedule, given, frame, done, quiet } = byHand();
  given.otherAtRest = true;
  schedule.ask();
  expect([...frame(), ...frame()]).toEqual(['first', 'draw']);
  expect(quiet(200)).toEqual([]);
  schedule.ask();
  expect(frame()).toEqual(['draw']);
  quiet(350);
  expect(done()).toEqual(['at rest']);
  expect(quiet(1000)).toEqual([]);
});

it('draws nothing more once it is over', () => {
  const { schedule, frame } = byHand();
  schedule.ask();
  schedule.dispose();
  expect(frame()).toEqual([]);
  schedule.ask();
  expect(frame()).toEqual([]);
});
