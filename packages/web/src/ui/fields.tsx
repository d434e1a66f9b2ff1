import {
  FieldError,
  Input,
  Label,
  TextField as AriaTextField,
  type TextFieldProps,
} from 'react-aria-components';
import styled from 'styled-components';
import { LABEL_FONT } from './theme/fonts';

export const FieldLabel = styled(Label)`
  font: 500 11px/1.3 ${LABEL_FONT};
  letter-spacing: 0.02em;
  color: ${({ theme }) => theme.quiet};
`;

export const FieldInput = styled(Input)`
  width: 100%;
  height: 28px;
  padding: 0 8px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  &[data-invalid] {
    border-color: ${({ theme }) => theme.signal};
  }
  &[data-disabled] {
    opacity: 0.5;
  }
`;

export const FieldMessage = styled(FieldError)`
  font-size: 12px;
  color: ${({ theme }) => theme.signalText};
`;

export const FieldBox = styled(AriaTextField)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
`;

/** A line of text under a label. */
export function TextField({ label, ...rest }: { label: string } & TextFieldProps) {
  return (
    <FieldBox {...rest}>
      <FieldLabel>{label}</FieldLabel>
      <FieldInput />
      <FieldMessage />
    </FieldBox>
  );
}
