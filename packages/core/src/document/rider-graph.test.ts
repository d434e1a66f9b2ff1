import { line, shotOf } from '../../test/shots.js';
import { dynamicRidersOf } from '../shot/evaluate/dynamic-riders.js';
import { refuseCircles, riderLinks } from './rider-graph.js';

const two = (first: object, second: object) =>
  shotOf(
    [line(60)],
    [
      { id: 'a', name: 'Ant', badge: 'A1', ...first },
      { id: 'b', name: 'Bee', badge: 'B2', ...second },
    ],
  );

describe('a circle of riders is refused at the field that closes it', () => {
  it.each([
    ['parent', { parent: 'b' }, 'riders[0].parent'],
    ['follow', { follow: { rider: 'b' } }, 'riders[0].follow.rider'],
    ['rest aim', { restAim: { target: { rider: 'b' } } }, 'riders[0].restAim.target.rider'],
    ['carrier keys', { parentKeys: [{ frame: 3, rider: 'b' }] }, 'riders[0].parentKeys[0].rider'],
    [
      'clearance',
      { attachment: { path: 'p' }, clearance: { from: [{ rider: 'b', distance: 2 }] } },
      'riders[0].clearance.from[0].rider',
    ],
  ])('%s', (_, first, field) => {
    // As it would be found before the document is read whole.
    const { riders, cues } = two(first, {});
    const round = riders.map((rider) => (rider.id === 'b' ? { ...rider, parent: 'a' } : rider));
    expect(() => refuseCircles({ riders: round, cues })).toThrow(
      expect.objectContaining({ path: field, found: 'Ant → Bee → Ant' }),
    );
  });
});

it('a rider is linked by pace alone to the one that paces it, and by place to the one that carries it', () => {
  const { riders } = two(
    { attachment: { path: 'p' } },
    { parent: 'a', attachment: { path: 'p', pacedBy: { rider: 'a' } } },
  );
  expect(riderLinks(riders[1])).toEqual([
    { field: 'parent', rider: 'a', paceAlone: false },
    { field: 'attachment.pacedBy.rider', rider: 'a', paceAlone: true },
  ]);
});

it('a rider that forces move waits for the place of the one that paces it where a cue asks for its gap to a third', () => {
  const body = { attachment: { path: 'p' }, rigidBody: { pull: 0.3, size: 0.5 } };
  const shotWith = (cues: object[]) =>
    shotOf(
      [line(60)],
      [
        { id: 'a', name: 'Ant', badge: 'A1', ...body },
        { id: 'b', name: 'Bee', badge: 'B2', ...body, attachment: { path: 'p', pacedBy: { rider: 'a' } } },
        { id: 'd', name: 'Den', badge: 'D3' },
      ],
      { cues } as Parameters<typeof shotOf>[2],
    );
  const cue = {
    id: 'c',
    name: 'Near',
    trigger: { kind: 'gap', rider: 'a', other: 'd' },
    action: { kind: 'facing', rider: 'b' },
    keys: [{ at: 3, value: 1 }],
  };
  const forced = (cues: object[]) => dynamicRidersOf(shotWith(cues)).map(({ id }) => id);
  expect(forced([])).toEqual(['a', 'b']);
  expect(forced([cue])).toEqual(['a']);
});
