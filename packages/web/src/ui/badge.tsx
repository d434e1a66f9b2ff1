import styled from 'styled-components';
import { LABEL_FONT } from '../theme/global-style';
import { lineColor, textOn } from '../theme/theme';

/** A rider's badge in its line colour, as on a route map. */
export const Badge = styled.span<{ $color: number }>`
  display: inline-grid;
  place-items: center;
  min-width: 24px;
  height: 18px;
  padding: 0 5px;
  border-radius: 9px;
  background: ${({ $color }) => lineColor($color)};
  color: ${({ $color }) => textOn(lineColor($color))};
  font: 600 12px/1 ${LABEL_FONT};
  flex: none;
`;
