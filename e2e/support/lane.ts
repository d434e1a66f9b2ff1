import type { APIRequestContext, Page } from '@playwright/test';
import { straight } from './courses.js';
import { openShotOf, storedShot } from './desk.js';

/** A straight lane of 60 m with a gate in its middle. */
export const lane = { ...straight, marks: [{ id: 'gate', name: 'Gate', distance: 30 }] };
export const long = { first: 1, last: 400 };
/** Along the lane in five seconds: 12 m/s. */
export const along = {
  keys: [
    { frame: 1, value: 0 },
    { frame: 121, value: 60 },
  ],
};
export const riding = (pace: object, path = 'lane') => ({
  id: 'r',
  name: 'Runner',
  badge: 'R1',
  attachment: { path, pace },
});
/** A shot of a rider on the lane, open at Pace. */
export const openLane = (page: Page, request: APIRequestContext, pace: object = along, shot: object = {}) =>
  openShotOf(
    page,
    request,
    { name: 'Timing', range: long, paths: [lane], riders: [riding(pace)], ...shot },
    'Pace',
  );

export const paceOf = async (request: APIRequestContext, id: string) => {
  const pace = (await storedShot(request, id)).document.riders[0].attachment?.pace;
  if (pace === undefined) throw new Error('The rider rides nothing.');
  return pace;
};
