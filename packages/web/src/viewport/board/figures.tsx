import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';

export const Figures = styled.dl`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 16px;
  margin: 0;
  padding: 0 10px 8px;
  & > div {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 8px;
  }
  & dt {
    font: 500 12px/1.4 ${LABEL_FONT};
    color: ${({ theme }) => theme.quiet};
  }
  & dd {
    margin: 0;
    font: 600 16px/1.4 ${LABEL_FONT};
    font-variant-numeric: tabular-nums;
    white-space: nowrap;
  }
`;

/** One number of the board, with its name. */
export function Figure({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd aria-label={name}>{value}</dd>
    </div>
  );
}

/** A number with fixed digits and a true minus; never −0. */
export function fixed(value: number, digits: number): string {
  const text = value.toFixed(digits);
  return (Number(text) === 0 ? text.replace('-', '') : text).replace('-', '−');
}
