/** @jest-environment jsdom */
import { jest } from '@jest/globals';
import { NO_ASSETS, newShot, physicsFor } from '@fleet-rail/core';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { ThemeProvider } from 'styled-components';
import { doAskedEdit } from '../../workers/evaluation/asked-edits';
import { DAY } from '../../ui/theme/theme';
import { createDesk, DeskContext } from '../../state/desk-store';
import { RideSection } from './rider-section';

// Browser features that this window lacks.
const { TextDecoder, TextEncoder } = jest.requireActual<typeof globalThis>('util');
Object.assign(globalThis, { TextDecoder, TextEncoder });
afterEach(cleanup);

it('a rider that forces move is detached where it is', async () => {
  const shot = newShot({
    name: 't',
    fps: 24,
    range: { first: 1, last: 97 },
    paths: [
      {
        id: 'p',
        name: 'P',
        basis: 'polyline',
        points: [{ position: [0, 60, 0] }, { position: [0, 60, 40] }],
      },
    ],
    riders: [
      { id: 'b', name: 'Ball', badge: 'B1', attachment: { path: 'p' }, rigidBody: { pull: 0, size: 0.5 } },
    ],
  });
  const desk = createDesk(shot);
  const assets = { ...NO_ASSETS, physics: await physicsFor(shot) };
  desk.getState().set({
    editAsker: { edited: async (now, name, ...rest) => doAskedEdit(now, assets, name, rest) },
    frame: 49,
  });
  render(
    <ThemeProvider theme={DAY}>
      <DeskContext value={desk}>
        <RideSection rider={shot.riders[0]} chosen={['b']} />
      </DeskContext>
    </ThemeProvider>,
  );
  fireEvent.click(screen.getByRole('button', { name: 'Detach, stay here' }));
  await waitFor(() => expect(desk.getState().shot.riders[0].attachment).toBeNull());
  const [ball] = desk.getState().shot.riders;
  // Two seconds of falling: ½ g t².
  expect(60 - ball.rest.translation[1]).toBeCloseTo((9.80665 * 4) / 2, 1);
});
