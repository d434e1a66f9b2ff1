import styled from 'styled-components';
import { LABEL_FONT } from './theme/fonts';
import { lineColor, textOn } from './theme/theme';

/** A rider's badge in its line colour, as on a route map; of one that is frozen with a second rim. */
export const Badge = styled.span<{ $color: number; $frozen?: boolean }>`
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
  ${({ $frozen, $color, theme }) =>
    $frozen ? `margin: 0 3px; box-shadow: 0 0 0 1.5px ${theme.panel}, 0 0 0 3px ${lineColor($color)};` : ''}
`;
