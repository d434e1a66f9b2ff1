import { NO_ASSETS } from '../shot/evaluate/scene-assets.js';
import { newShot, type Loose } from '../document/new-shot.js';
import { parseShot } from '../document/parse-shot.js';
import type { Attachment } from '../document/shot-attachment.js';
import type { Shot } from '../document/shot.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { checkShot } from './check-shot.js';

const line = [
  [0, 0, 0],
  [0, 0, 10],
].map((position) => ({ position: position as Vec3 }));
const shotWith = (attachment: Loose<Attachment>, parts: Loose<Shot> = {}) =>
  newShot({
    name: 't',
    paths: [{ id: 'p', name: 'Lane', basis: 'polyline', points: line }],
    riders: [{ id: 'r', name: 'R', badge: 'R1', attachment: { path: 'p', ...attachment } }],
    ...parts,
  });
const findings = (shot: Shot) => checkShot(evaluateShot(shot, NO_ASSETS));

it('says nothing about a plain ride', () => {
  expect(
    findings(
      shotWith({
        pace: {
          keys: [
            { frame: 1, value: 0 },
            { frame: 240, value: 10 },
          ],
        },
      }),
    ),
  ).toEqual([]);
});

it('a ridden path without a curve is a fault that names who waits', () => {
  const shot = shotWith({}, { paths: [{ id: 'p', name: 'Lane', points: [{ position: [0, 0, 0] }] }] });
  const [finding] = findings(shot);
  expect(finding).toMatchObject({ severity: 'fault', kind: 'no-curve', path: 'p' });
  expect(finding.message).toMatch(/1 of the 2 points.*Not moving until then: R1/);
});

it('a key past the end of an open path is pointed out', () => {
  const [finding] = findings(
    shotWith({
      pace: {
        keys: [
          { frame: 1, value: 0 },
          { frame: 9, value: 12 },
        ],
      },
    }),
  );
  expect(finding).toMatchObject({ severity: 'warning', kind: 'past-end', rider: 'r', frame: 9 });
});

it('a speed that runs out of an open path is pointed out, with the frame', () => {
  const [finding] = findings(shotWith({ pace: { mode: 'speed', speeds: [{ frame: 1, speed: 12 }] } }));
  expect(finding).toMatchObject({ severity: 'warning', kind: 'past-end', from: 22, to: 240 });
  // 10 m at 12 m/s take 20 frames of 24 a second.
  expect(finding.message).toContain('end of its path by frame 22');
});

it('cues that wait for ever or act on nothing are pointed out', () => {
  const cue = (id: string, does: object, at: number) => ({
    id,
    name: id,
    trigger: { kind: 'distance', rider: 'r' },
    action: { rider: 's', ...does },
    keys: [{ at, value: 1 }],
  });
  const shot = shotWith({});
  const messages = findings({
    ...parseShot({
      ...shot,
      riders: [...shot.riders, { ...shot.riders[0], id: 's', badge: 'S' }],
      cues: [cue('far', { kind: 'start' }, 500), cue('stop', { kind: 'stopEnd', stop: 2 }, 1)].map((one) => ({
        ...one,
        keys: [{ at: -1e6, value: 0, ease: 'hold' }, ...one.keys],
      })),
    }),
  }).map(({ message }) => message);
  expect(messages[0]).toMatch(/"far" never comes.*S waits forever/);
  expect(messages[1]).toMatch(/"stop" ends stop 3 of S, which makes none/);
});

it('a rider that is to stand on the ground says that there is none', () => {
  const [finding] = findings(shotWith({ ground: { mode: 'stick' } }));
  expect(finding).toMatchObject({
    kind: 'loose-end',
    message: expect.stringMatching(/R1 .* the shot has none/),
  });
});

it.each<[string, Loose<Attachment>, RegExp]>([
  ['target', { facing: { mode: 'aim' } }, /R1 aims at nothing/],
  ['axles', { anchor: 'bothAxles' }, /R1 .* no wheelbase/],
  ['follows', { coupledTo: { rider: 'q' } }, /R1 follows Q2, which is not on its path/],
  ['pacedBy', { pacedBy: { rider: 'q' } }, /Q2, which is not attached/],
])('what waits for something it needs is said: %s', (part, attachment, message) => {
  const riders = [
    { id: 'r', name: 'R', badge: 'R1', attachment: { path: 'p', ...attachment } },
    { id: 'q', name: 'Q', badge: 'Q2' },
  ];
  const [finding, ...rest] = findings(shotWith({}, { riders })).filter(({ kind }) => kind !== 'never-moves');
  expect(finding).toMatchObject({ kind: 'loose-end', part, message: expect.stringMatching(message) });
  expect(rest).toEqual([]);
});

it('a string that hangs before the start of its path is pointed out', () => {
  const string = (value: number) => [
    { id: 'e', name: 'E', badge: 'E1', attachment: { path: 'p', pace: { start: { value } } } },
    { id: 'w', name: 'W', badge: 'W2', attachment: { path: 'p', coupledTo: { rider: 'e', gap: 3 } } },
  ];
  const late = (value: number) =>
    findings(shotWith({}, { riders: string(value) })).filter(({ kind }) => kind !== 'never-moves');
  expect(late(4)).toEqual([]);
  expect(late(2)).toMatchObject([
    {
      kind: 'past-end',
      rider: 'w',
      message: expect.stringMatching(/W2 begins \d+\.\d\d m before its path, behind E1/),
    },
  ]);
});
