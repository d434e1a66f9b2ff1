/** @jest-environment jsdom */
import { jest } from '@jest/globals';
import { fireEvent, render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { useState } from 'react';
import { ThemeProvider } from 'styled-components';
import { DAY } from './theme/theme';
import { QuantityField, type QuantityFieldProps } from './quantity-field';

type Change = QuantityFieldProps['onChange'];

/** A field that keeps its value, as the desk does, and records it. */
function shown(props: Partial<QuantityFieldProps> = {}) {
  const onChange = jest.fn<Change>();
  function Kept() {
    const [value, setValue] = useState(2);
    const put: Change = (next, gesture) => {
      onChange(next, gesture);
      setValue(next);
    };
    return <QuantityField label="Height" kind="length" value={value} step={0.1} {...props} onChange={put} />;
  }
  render(
    <ThemeProvider theme={DAY}>
      <Kept />
    </ThemeProvider>,
  );
  return { onChange, field: screen.getByRole<HTMLInputElement>('textbox', { name: 'Height' }) };
}

/** Presses the label, moves the pointer to the right in steps, and releases. */
function dragLabel(...moves: number[]) {
  const label = screen.getByText('Height');
  label.setPointerCapture = () => undefined;
  fireEvent(label, pointer('pointerdown', 100));
  for (const by of moves) fireEvent(label, pointer('pointermove', 100 + by));
  fireEvent(label, pointer('pointerup', 100 + (moves.at(-1) ?? 0)));
}

const pointer = (type: string, clientX: number) => new MouseEvent(type, { bubbles: true, clientX });

it('takes a number with any unit of its kind when Enter is pressed', async () => {
  const { onChange, field } = shown();
  await userEvent.clear(field);
  await userEvent.type(field, '350 cm{Enter}');
  expect(onChange.mock.calls).toEqual([[3.5, undefined]]);
  expect(field.value).toBe('3.5 m');
});

it('says what it expects, and keeps what was typed until Escape', async () => {
  const { onChange, field } = shown({ min: 0.000001 });
  await userEvent.clear(field);
  await userEvent.type(field, '0{Enter}');
  expect(screen.getByText('Enter 0.000001 m or more.')).toBeTruthy();
  expect(field.value).toBe('0');
  await userEvent.type(field, '{Escape}');
  expect(field.value).toBe('2 m');
  expect(onChange).not.toHaveBeenCalled();
});

it('steps by the arrow keys, by ten with Shift, and no further than its bounds', async () => {
  const { onChange, field } = shown({ max: 3.05 });
  await userEvent.type(field, '{ArrowUp}{ArrowDown}{ArrowDown}');
  await userEvent.type(field, '{Shift>}{ArrowUp}{ArrowUp}{/Shift}');
  expect(onChange.mock.calls.map(([value]) => value)).toEqual([2.1, 2, 1.9, 2.9, 3.05]);
});

it('all values of a drag by its label share a gesture', () => {
  const { onChange } = shown();
  dragLabel(5, 12, 3);
  expect(onChange.mock.calls.map(([value]) => value)).toEqual([2.1, 2.3, 2]);
  expect(new Set(onChange.mock.calls.map(([, gesture]) => gesture)).size).toBe(1);
});

it('a press that trembles by less than a step changes nothing', () => {
  const { onChange } = shown();
  dragLabel(1, 3, -2);
  expect(onChange).not.toHaveBeenCalled();
});
