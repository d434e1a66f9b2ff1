import { even, line, shotOf } from '../../../test/shots.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import type { Loose } from '../../document/new-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import { relay } from '../loop/relay.js';
import { formUp } from './formation.js';
import { withRider } from './change-rider.js';
import { takeFoundGait, takeFoundRig } from './take-rig.js';

const ball: Loose<Rider> = {
  id: 'b',
  name: 'Ball',
  model: 'm',
  attachment: { path: 'p', pace: even(0, 40) },
};
const other = { ...ball, id: 'o', name: 'Other' };
const shot = shotOf([line(40)], [ball, other], {
  models: [{ id: 'm', name: 'M', source: { file: 'm.glb' } }],
});
const rig = {
  wheels: [],
  steering: { node: null, axis: '+z' as const },
  body: null,
  ball: { node: null, radius: 0.4, centre: [0, 0.4, 0] as [number, number, number] },
};
const wedge = {
  count: 3,
  arrangement: 'wedge' as const,
  spacing: 2,
  delay: 0,
  step: [0, 0, 0] as [number, number, number],
  turn: 0,
  seed: 1,
  vary: { place: 0, time: 0, speed: 0, amplitude: 0 },
};

describe('what is found in a model', () => {
  const relayed = relay(shot, 'b', 5, null).shot;
  const formed = formUp(shot, NO_ASSETS, 'b', wedge).shot;
  const balls = ({ riders }: { riders: readonly Rider[] }) =>
    riders.filter((rider) => rider.ball !== null).map(({ id }) => id);

  it.each([
    ['relay', relayed, 5],
    ['formation', formed, 4],
  ])(
    'reaches every rider of a %s, whichever of them it is taken for, and none beside it',
    (_, all, count) => {
      const copies = all.riders.map(({ id }) => id).filter((id) => id !== 'o');
      expect(copies).toHaveLength(count);
      for (const id of copies)
        expect(balls(takeFoundRig(all, id, rig, null)).sort()).toEqual([...copies].sort());
      expect(balls(takeFoundRig(all, 'o', rig, null))).toEqual(['o']);
    },
  );

  it('leaves a copy alone that is set up otherwise, or has another model', () => {
    const [, , first, second] = relayed.riders;
    const own = withRider(
      withRider(relayed, first.id, (rider) => ({ ...rider, ball: { ...rig.ball, radius: 0.3 } })),
      second.id,
      (rider) => ({ ...rider, model: null }),
    );
    const after = takeFoundRig(own, 'b', rig, null);
    expect(after.riders.map(({ ball: kept }) => kept?.radius)).toEqual([
      0.4,
      undefined,
      0.3,
      undefined,
      0.4,
      0.4,
    ]);
  });

  it('a walk reaches them too', () => {
    const gaits = [{ clip: 'walk', stride: 1.4, feet: [], still: false }];
    const after = takeFoundGait(relayed, 'b', 'walk', gaits as never);
    expect(after.riders.map(({ gait }) => gait?.stride)).toEqual([1.4, undefined, 1.4, 1.4, 1.4, 1.4]);
  });
});
