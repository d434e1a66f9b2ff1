/** @jest-environment jsdom */
import { jest } from '@jest/globals';
import { render } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { ThemeProvider } from 'styled-components';
import { DAY } from './theme/theme';
import { CancelButton } from './cancel-button';

it('Esc closes the latest of what is open, and nothing that another has taken it for', async () => {
  const first = jest.fn();
  const second = jest.fn();
  const cards = (both: boolean) => (
    <ThemeProvider theme={DAY}>
      <CancelButton onCancel={first} />
      {both && <CancelButton onCancel={second} />}
    </ThemeProvider>
  );
  const { rerender } = render(cards(true));
  await userEvent.keyboard('{Escape}');
  expect([first.mock.calls.length, second.mock.calls.length]).toEqual([0, 1]);
  rerender(cards(false));
  await userEvent.keyboard('{Escape}');
  expect([first.mock.calls.length, second.mock.calls.length]).toEqual([1, 1]);
  const take = (event: Event) => event.preventDefault();
  document.addEventListener('keydown', take, true);
  await userEvent.keyboard('{Escape}');
  document.removeEventListener('keydown', take, true);
  expect(first).toHaveBeenCalledTimes(1);
});
