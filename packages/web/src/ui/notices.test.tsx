/** @jest-environment jsdom */
import { act, render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { ThemeProvider } from 'styled-components';
import { DAY } from './theme/theme';
import { Notices, notify } from './notices';

it('refusals are shown one at a time, the latest first, the rest counted, and each said once', async () => {
  render(
    <ThemeProvider theme={DAY}>
      <Notices />
    </ThemeProvider>,
  );
  act(() => {
    for (const text of ['First.', 'Second.', 'Third.', 'Second.']) notify('error', text);
  });
  const texts = () => screen.getAllByRole('alert').map(({ textContent }) => textContent);
  expect(texts()).toEqual(['Second. 2 more.']);
  await userEvent.click(screen.getByRole('button', { name: 'Close message' }));
  expect(texts()).toEqual(['Third. 1 more.']);
  await userEvent.click(screen.getByRole('button', { name: 'Close message' }));
  expect(texts()).toEqual(['First.']);
  await userEvent.click(screen.getByRole('button', { name: 'Close message' }));
  expect(screen.queryByRole('alert')).toBeNull();
});
