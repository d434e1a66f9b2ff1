/** @jest-environment jsdom */
import { jest } from '@jest/globals';
import { DrawSchedule } from './draw-schedule';

/** A schedule by the hand: frames of the page, the graphics side and time go on as the test says. */
function byHand(held = false) {
  const log: string[] = [];
  const waiting: (() => void)[] = [];
  const given = { isNew: false, grows: false, otherAtRest: false, fails: false };
  const schedule = new DrawSchedule(
    {
      hasNew: () => given.isNew,
      prepare: () => void log.push('prepare'),
      draw: (first, rests) => {
        if (given.fails) throw new Error('No picture.');
        log.push(first ? 'first' : rests ? 'at rest' : 'draw');
        return given.grows;
      },
      show: () => void (held && log.push('show')),
      rest: () => given.otherAtRest,
    },
    (goOn) => waiting.push(goOn),
    held,
  );
  return {
    schedule,
    given,
    /** Events until the next frame of the page. */
    frame: () => {
      jest.advanceTimersToNextFrame();
      return log.splice(0);
    },
    /** Events once the graphics side is done. */
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

it('held pictures are shown when the graphics side is done, and the next is drawn a frame later', () => {
  const { schedule, frame, done, waits } = byHand(true);
  schedule.ask();
  expect(frame()).toEqual(['first']);
  expect(frame()).toEqual([]);
  expect(done()).toEqual([]);
  expect(frame()).toEqual(['show']);
  expect(frame()).toEqual(['draw']);
  // Changes meanwhile are in no picture yet: one more is drawn, however often it was asked for.
  schedule.ask();
  schedule.ask();
  expect(frame()).toEqual([]);
  expect(waits()).toBe(1);
  done();
  expect(frame()).toEqual(['show']);
  expect(frame()).toEqual(['draw']);
  done();
  expect(frame()).toEqual(['show']);
  expect(frame()).toEqual([]);
});

it('a held picture at rest is shown as well, once', () => {
  const { schedule, given, frame, done, quiet, waits } = byHand(true);
  given.otherAtRest = true;
  schedule.ask();
  for (const drawn of ['first', 'draw']) {
    expect(frame()).toEqual([drawn]);
    // However long it takes to draw, that is no rest.
    expect(quiet(1000)).toEqual([]);
    done();
    expect(frame()).toEqual(['show']);
  }
  quiet(350);
  expect(done()).toEqual(['at rest']);
  done();
  expect(frame()).toEqual(['show']);
  expect(quiet(1000)).toEqual([]);
  expect(waits()).toBe(0);
});

it.each([false, true])('a picture that fails stops none that is asked for after it (held: %s)', (held) => {
  const { schedule, given, frame } = byHand(held);
  given.fails = true;
  schedule.ask();
  expect(frame).toThrow('No picture.');
  given.fails = false;
  schedule.ask();
  expect(frame()).toEqual(['draw']);
});

it('draws nothing more once it is over', () => {
  const { schedule, frame } = byHand();
  schedule.ask();
  schedule.dispose();
  expect(frame()).toEqual([]);
  schedule.ask();
  expect(frame()).toEqual([]);
});
