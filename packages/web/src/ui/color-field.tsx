import { useId } from 'react';
import styled from 'styled-components';
import { FieldLabel } from './fields';

const Box = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  & > input {
    width: 40px;
    height: 24px;
    padding: 1px;
    border: 1px solid ${({ theme }) => theme.hairline};
    border-radius: 6px;
    background: ${({ theme }) => theme.panel};
    cursor: pointer;
  }
`;

/** A colour by the browser's own picker. */
export function ColorField(props: { label: string; value: string; onChange: (color: string) => void }) {
  const id = useId();
  return (
    <Box>
      <FieldLabel htmlFor={id}>{props.label}</FieldLabel>
      <input
        id={id}
        type="color"
        value={props.value}
        onChange={(event) => props.onChange(event.currentTarget.value)}
      />
    </Box>
  );
}
