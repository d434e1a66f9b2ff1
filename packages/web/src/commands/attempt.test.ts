import { NO_ASSETS, newAttachment, newShot, withRider, type Shot } from '@fleet-rail/core';
import { doAskedEdit, type EditAsker } from '../workers/evaluation/asked-edits';
import { attemptAsked } from './attempt';
import { createDesk } from '../state/desk-store';

const range = { first: 1, last: 49 };
const shot = newShot({
  name: 't',
  range,
  paths: [
    { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 12] }] },
  ],
  riders: [{ id: 'r', name: 'R', attachment: newAttachment('p', range) }],
});
const renamed = (now: Shot) => withRider(now, 'r', (one) => ({ ...one, name: 'Renamed' }));

it('what is changed while an edit is worked out stays, and both can be undone', async () => {
  const desk = createDesk(shot);
  let asked = 0;
  const editAsker: EditAsker = {
    async edited(now, name, ...rest) {
      if (asked++ === 0) desk.getState().edit('Rename', renamed);
      return doAskedEdit(now, NO_ASSETS, name, rest);
    },
  };
  desk.getState().set({ editAsker });
  expect(await attemptAsked(desk, 'Detach', 'detachHere', ['r'], 25)).not.toBeNull();
  expect(desk.getState().shot.riders[0]).toMatchObject({
    name: 'Renamed',
    attachment: null,
    rest: { translation: [0, 0, expect.closeTo(6, 9)] },
  });
  desk.getState().undo();
  expect(desk.getState().shot.riders[0]).toMatchObject({
    name: 'Renamed',
    attachment: shot.riders[0].attachment,
  });
  desk.getState().undo();
  expect(desk.getState().shot).toBe(shot);
});

it('an edit that cannot be done changes nothing', async () => {
  const desk = createDesk(shot);
  const edited: EditAsker['edited'] = async (now, name, ...rest) => doAskedEdit(now, NO_ASSETS, name, rest);
  desk.getState().set({ editAsker: { edited } });
  expect(await attemptAsked(desk, 'Hold', 'holdDistance', 'gone', 'r', 25)).toBeNull();
  expect(desk.getState().shot).toBe(shot);
});
