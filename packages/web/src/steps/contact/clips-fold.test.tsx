/** @jest-environment jsdom */
import { jest } from '@jest/globals';
import { newShot, type ClipBlock } from '@fleet-rail/core';
import { cleanup, render, screen } from '@testing-library/react';
import { ThemeProvider } from 'styled-components';
import { DAY } from '../../ui/theme/theme';
import { createDesk, DeskContext } from '../../state/desk-store';
import { ClipsFold } from './clips-fold';

// Browsers have these two; jsdom does not.
const { TextDecoder, TextEncoder } = jest.requireActual<typeof globalThis>('util');
Object.assign(globalThis, { TextDecoder, TextEncoder });
afterEach(cleanup);

function showClip(block: Partial<ClipBlock>): void {
  const shot = newShot({
    name: 't',
    fps: 24,
    range: { first: 1, last: 97 },
    riders: [{ id: 'w', name: 'Walker', clips: [{ clip: 'wave', frame: 1, until: 49, to: 0.5, ...block }] }],
  });
  render(
    <ThemeProvider theme={DAY}>
      <DeskContext value={createDesk(shot)}>
        <ClipsFold rider={shot.riders[0]} model={null} />
      </DeskContext>
    </ThemeProvider>,
  );
}

it('a clip that runs more often than frames can show says so', () => {
  // Half a second of it at eight times its speed: 16 times a second.
  showClip({ rate: 8 });
  expect(screen.getByRole('alert').textContent).toBe('Up to 16 times a second: 24 fps can show at most 12.');
});

it('a clip at half the frame rate says nothing', () => {
  showClip({ rate: -6 });
  expect(screen.queryByRole('alert')).toBeNull();
});
