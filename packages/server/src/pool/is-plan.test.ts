import { problemOfPlan } from './is-plan.js';

const free = { position: [0, 0, 0], rotation: [0, 0, 0, 1], fieldOfView: 1, height: null };

it.each([
  ['a rider', [{ frame: 1, eyes: [{ rider: 'r1' }] }]],
  ['a free eye', [{ frame: -3, eyes: [{ free }] }]],
  ['a free eye along parallels', [{ frame: 1, eyes: [{ free: { ...free, fieldOfView: null, height: 4 } }] }]],
])('a plan with %s is one', (_, plan) => {
  expect(problemOfPlan(plan)).toBeNull();
});

it.each([
  ['no pictures', [], ': found 0 pictures; expected 1 to 100000'],
  ['no eye', [{ frame: 1, eyes: [] }], '[0].eyes: expected 1 to 4 eyes'],
  [
    'an empty eye',
    [{ frame: 1, eyes: [{}] }],
    '[0].eyes[0]: expected either the id of a rider or a free place',
  ],
  ['two kinds of eye', [{ frame: 1, eyes: [{ rider: 'r', free }] }], '[0].eyes[0]: expected either'],
  [
    'a broken frame',
    [{ frame: 1.5, eyes: [{ rider: 'r' }] }],
    '[0].frame: found 1.5; expected a whole number',
  ],
  [
    'a rotation of nothing',
    [{ frame: 1, eyes: [{ free: { ...free, rotation: [0, 0, 0, 0] } }] }],
    '[0].eyes[0].free.rotation: expected a unit quaternion',
  ],
  [
    'a place that is no number',
    [{ frame: 1, eyes: [{ free: { ...free, position: [0, null, 0] } }] }],
    '[0].eyes[0].free.position: expected three numbers',
  ],
  ['an unknown key', [{ frame: 1, eyes: [{ rider: 'r' }], more: 1 }], '[0]: found "more"'],
])('a plan with %s is refused with its place', (_, plan, problem) => {
  expect(problemOfPlan(plan)).toContain(problem);
});
