/** @jest-environment jsdom */
import { jest } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { ThemeProvider } from 'styled-components';
import { DAY } from './theme/theme';
import { Choice } from './choice';
import { IconButton } from './icon-button';
import { Tick } from './tick';

const show = (children: ReactNode) => render(<ThemeProvider theme={DAY}>{children}</ThemeProvider>);

it('a choice names its options, and is gone through by the arrow keys', async () => {
  const onChange = jest.fn();
  const options = [
    { id: 'a', name: 'Along' },
    { id: 'b', name: 'Against' },
  ];
  show(<Choice label="Way" options={options} value="a" onChange={onChange} />);
  expect(screen.getByRole('radiogroup', { name: 'Way' })).toBeTruthy();
  expect(screen.getByRole('radio', { name: 'Along', checked: true })).toBeTruthy();
  await userEvent.tab();
  await userEvent.keyboard('{ArrowRight}[Space]');
  expect(onChange).toHaveBeenCalledWith('b');
});

it('a tick tells its state, and is turned by Space', async () => {
  const onChange = jest.fn();
  show(
    <Tick isSelected onChange={onChange}>
      Loop
    </Tick>,
  );
  expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Loop' }).checked).toBe(true);
  await userEvent.tab();
  await userEvent.keyboard(' ');
  expect(onChange).toHaveBeenCalledWith(false);
});

it('a button that is a picture has a name, and does nothing while it is disabled', async () => {
  const onPress = jest.fn();
  show(
    <IconButton label="Delete key 2" isDisabled onPress={onPress}>
      <svg aria-hidden />
    </IconButton>,
  );
  await userEvent.click(screen.getByRole('button', { name: 'Delete key 2' }));
  expect(onPress).not.toHaveBeenCalled();
});
