import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';

const Row = styled(ToggleButtonGroup)`
  display: inline-flex;
  flex-wrap: wrap;
  align-self: flex-start;
  max-width: 100%;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  overflow: hidden;
  /* Shows between the options as a line. */
  gap: 1px;
  background: ${({ theme }) => theme.hairline};
`;

const Option = styled(ToggleButton)`
  flex: 1 0 auto;
  height: 26px;
  padding: 0 10px;
  border: 0;
  background: ${({ theme }) => theme.panel};
  white-space: nowrap;
  cursor: pointer;
  &[data-hovered] {
    background: ${({ theme }) => theme.wash};
  }
  &[data-selected] {
    background: ${({ theme }) => theme.ink};
    color: ${({ theme }) => theme.panel};
  }
  &[data-focus-visible] {
    outline-offset: -2px;
  }
`;

/** One of a few words, all in view. */
export function Choice<T extends string>(props: {
  label: string;
  options: readonly { id: T; name: string }[];
  value: T;
  onChange: (value: T) => void;
}) {
  return (
    <Row
      aria-label={props.label}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[props.value]}
      onSelectionChange={(keys) => props.onChange([...keys][0] as T)}
    >
      {props.options.map(({ id, name }) => (
        <Option key={id} id={id}>
          {name}
        </Option>
      ))}
    </Row>
  );
}
