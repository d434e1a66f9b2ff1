import type { Rider } from '@fleet-rail/core';
import { Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../desk-store';
import { topSpeed } from './ride-speeds';

/** Says of what repeats that it does so more often than frames can show: less than two of them a time. */
export function QuickHint(props: { rider: Rider; rate: number; by: 'time' | 'distance' }) {
  const { rider, rate, by } = props;
  const fps = useDesk(({ shot }) => shot.fps);
  const top = useDesk(({ evaluation }) => (by === 'distance' ? topSpeed(evaluation, rider.id) : 1));
  const often = Math.abs(rate) * top;
  // A rounding above half the frame rate is no more than that.
  if (often <= (fps / 2) * (1 + 1e-6)) return null;
  return (
    <Hint role="alert">
      Up to {showNumber(often, 1)} times a second: {showNumber(fps, 2)} frames a second show no more than{' '}
      {showNumber(fps / 2, 1)}.
    </Hint>
  );
}
