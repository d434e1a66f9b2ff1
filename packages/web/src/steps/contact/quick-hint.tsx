import type { Rider } from '@fleet-rail/core';
import { useMemo } from 'react';
import { Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../../state/desk-store';
import { topSpeed } from './ride-speeds';

/** Says of what repeats that it does so more often than frames can show: less than two of them a time. */
export function QuickHint(props: { rider: Rider; rate: number; by: 'time' | 'distance' }) {
  const { rider, rate, by } = props;
  const fps = useDesk(({ shot }) => shot.fps);
  const poses = useDesk(({ evaluation }) => evaluation?.riders.get(rider.id)?.poses);
  // Found when the ride changes, not with every frame that is played.
  const top = useMemo(() => topSpeed(poses), [poses]);
  const often = Math.abs(rate) * (by === 'distance' ? top : 1);
  // A rounding above half the frame rate is no more than that.
  if (often <= (fps / 2) * (1 + 1e-6)) return null;
  return (
    <Hint role="alert">
      Up to {showNumber(often, 1)} times a second: {showNumber(fps, 2)} fps can show at most{' '}
      {showNumber(fps / 2, 1)}.
    </Hint>
  );
}
