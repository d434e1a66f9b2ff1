import type { Cue, Rider } from '@fleet-rail/core';
import { Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../desk-store';

/** When a cue acts, or what has still to happen for it to act. */
export function WhatItWaitsFor({
  cue: { id, on, does, keys },
  riders,
}: {
  cue: Cue;
  riders: readonly Rider[];
}) {
  const moment = useDesk(({ evaluation }) => evaluation?.moments.get(id));
  const badge = (rider: string | null) => riders.find((one) => one.id === rider)?.badge ?? '';
  const acting = riders.find((one) => one.id === does.rider);
  const at = keys.find(({ value }) => value >= 1)?.at;
  const times = does.kind === 'start' || does.kind === 'stopEnd';
  const comes =
    times ||
    does.kind === 'camera' ||
    does.kind === 'path' ||
    (does.kind === 'play' && does.plays === 'once');
  if (!comes || moment === undefined) return null;
  if (times && acting?.hitch === null && acting.keyed === null)
    return <Hint role="status">Waits for {acting.badge} to be attached to a path.</Hint>;
  if (moment !== null) return <Hint role="status">Acts at frame {showNumber(moment, 2)}.</Hint>;
  const metres = showNumber(at ?? 0, 2);
  return (
    <Hint role="status">
      {on.kind === 'distance' &&
        `Waits for ${badge(on.rider)} to come as far as ${metres} m, which it does not in this shot.`}
      {on.kind === 'gap' &&
        `Waits for ${badge(on.rider)} and ${badge(on.other)} to be ${metres} m apart, which they are not in this shot.`}
      {on.kind === 'frame' && 'Waits for a frame after this shot.'}
      {on.kind === 'stop' &&
        `Waits for a stop of ${badge(on.rider)}, which ${on.from === 'begin' ? 'does not begin' : 'does not end'} in this shot.`}
      {on.kind === 'speed' && `Waits for ${badge(on.rider)} to go at ${metres} m/s, which it does not.`}
      {on.kind === 'cue' && 'Waits for another cue, which does not come.'}
    </Hint>
  );
}
