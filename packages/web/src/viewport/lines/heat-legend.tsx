import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { useDesk } from '../../state/desk-store';
import { heatText } from './heat';
import { heatShown } from './heat-shown';

const Legend = styled.div`
  position: absolute;
  left: 12px;
  bottom: 50px;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 2px 8px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  font: 500 12px/20px ${LABEL_FONT};
  & > i {
    width: 60px;
    height: 8px;
    border-radius: 4px;
    /* As the ribbon's shader has it, on a screen. */
    background: linear-gradient(90deg, #6699ad, #ef9d6f 50%, #dc5947);
  }
`;

/** Legend of the ribbon's colours. */
export function HeatLegend() {
  const shot = useDesk((state) => state.shot);
  const evaluation = useDesk((state) => state.evaluation);
  const riderId = useDesk((state) => state.riderId);
  const shows = useDesk((state) => state.shows);
  const shown = heatShown({ shot, evaluation, riderId, shows });
  const rider = shot.riders.find(({ id }) => id === riderId);
  if (!shown || !rider || shows.heat === 'none') return null;
  return (
    <Legend role="note">
      <i aria-hidden />
      {heatText(rider, shown.heat, shows.heat)}
    </Legend>
  );
}
