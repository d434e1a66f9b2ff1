import styled from 'styled-components';
import { LABEL_FONT } from './theme/fonts';

/** A part of a step's panel, with its heading. */
export const Section = styled.section`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 12px 16px;
  border-bottom: 1px solid ${({ theme }) => theme.hairline};
`;

export const SectionTitle = styled.h3`
  font: 600 13px/1.3 ${LABEL_FONT};
  letter-spacing: 0.03em;
  color: ${({ theme }) => theme.quiet};
`;

export const PanelTitle = styled.h2`
  padding: 14px 16px 0;
  font: 600 20px/1.2 ${LABEL_FONT};
`;

export const Hint = styled.p`
  color: ${({ theme }) => theme.quiet};
`;

export const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

export const FieldGrid = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px;
`;

/** Two fields side by side, for longer words. */
export const FieldPair = styled(FieldGrid)`
  grid-template-columns: repeat(2, minmax(0, 1fr));
`;
