import { usePool } from '../../api/pool';
import { useTaker } from '../../pictures/use-taker';
import { useDesk } from '../desk-store';

/** Draws the pictures of this shot in a thread of the desk's own, at whatever station one is, unless that is left to others. */
export function DeskTaker({ shotId }: { shotId: string }) {
  const drawsHere = useDesk((state) => state.drawsHere);
  const { data } = usePool(shotId);
  const waits = data?.jobs.some((job) => job.shotId === shotId && job.state === 'drawing') ?? false;
  useTaker(waits && drawsHere, 'This desk', 'desk', shotId);
  return null;
}
