import { ChevronDown } from 'lucide-react';
import {
  Button,
  ListBox,
  ListBoxItem,
  Popover,
  Select as AriaSelect,
  SelectValue,
} from 'react-aria-components';
import styled from 'styled-components';
import { FieldLabel } from './fields';

const Box = styled(AriaSelect)<{ $row: boolean }>`
  display: flex;
  flex-direction: ${({ $row }) => ($row ? 'row' : 'column')};
  align-items: ${({ $row }) => ($row ? 'center' : 'stretch')};
  gap: ${({ $row }) => ($row ? 8 : 2)}px;
  min-width: 0;
`;

const Opener = styled(Button)`
  display: flex;
  align-items: center;
  justify-content: space-between;
  height: 28px;
  padding: 0 8px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  & svg {
    width: 14px;
    height: 14px;
  }
`;

const Shown = styled(SelectValue)`
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

const Sheet = styled(Popover)`
  min-width: var(--trigger-width);
  max-height: 320px;
  overflow: auto;
  padding: 4px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  color: ${({ theme }) => theme.ink};
`;

const Row = styled(ListBoxItem)`
  padding: 4px 8px;
  border-radius: 4px;
  cursor: pointer;
  &[data-focused] {
    background: ${({ theme }) => theme.wash};
  }
  &[data-selected] {
    font-weight: 600;
  }
`;

/** One of many words, behind a button. */
export function Select<T extends string>(props: {
  label: string;
  /** The label is visible beside it and only read out here. */
  isLabelHidden?: boolean;
  /** Whether the label is beside it, as in a bar. */
  isRow?: boolean;
  options: readonly { id: T; name: string }[];
  value: T;
  onChange: (value: T) => void;
}) {
  return (
    <Box
      $row={props.isRow ?? false}
      selectedKey={props.value}
      onSelectionChange={(key) => props.onChange(key as T)}
      aria-label={props.isLabelHidden ? props.label : undefined}
    >
      {!props.isLabelHidden && <FieldLabel>{props.label}</FieldLabel>}
      <Opener>
        <Shown />
        <ChevronDown aria-hidden />
      </Opener>
      <Sheet>
        <ListBox items={props.options}>{(option) => <Row id={option.id}>{option.name}</Row>}</ListBox>
      </Sheet>
    </Box>
  );
}
