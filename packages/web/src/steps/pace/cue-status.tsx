import type { Cue, Rider } from '@fleet-rail/core';
import { Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../../state/desk-store';

/** When a cue acts, or what has still to happen for it to act. */
export function WhatItWaitsFor({
  cue: { id, trigger, action, keys },
  riders,
}: {
  cue: Cue;
  riders: readonly Rider[];
}) {
  const moment = useDesk(({ evaluation }) => evaluation?.moments.get(id));
  const badge = (rider: string | null) => riders.find((one) => one.id === rider)?.badge ?? '';
  const acting = riders.find((one) => one.id === action.rider);
  const at = keys.find(({ value }) => value >= 1)?.at;
  const times = action.kind === 'start' || action.kind === 'stopEnd';
  const comes =
    times ||
    action.kind === 'camera' ||
    action.kind === 'path' ||
    (action.kind === 'play' && action.plays === 'once');
  if (!comes || moment === undefined) return null;
  if (times && acting?.attachment === null && acting.transformKeys === null)
    return <Hint role="status">Waits for {acting.badge} to be attached to a path.</Hint>;
  if (moment !== null) return <Hint role="status">Acts at frame {showNumber(moment, 2)}.</Hint>;
  const metres = showNumber(at ?? 0, 2);
  return (
    <Hint role="status">
      {trigger.kind === 'distance' &&
        `Waits for ${badge(trigger.rider)} to come as far as ${metres} m, which it does not in this shot.`}
      {trigger.kind === 'gap' &&
        `Waits for ${badge(trigger.rider)} and ${badge(trigger.other)} to be ${metres} m apart, which they are not in this shot.`}
      {trigger.kind === 'frame' && 'Waits for a frame after this shot.'}
      {trigger.kind === 'stop' &&
        `Waits for a stop of ${badge(trigger.rider)}, which ${trigger.from === 'begin' ? 'does not begin' : 'does not end'} in this shot.`}
      {trigger.kind === 'speed' &&
        `Waits for ${badge(trigger.rider)} to go at ${metres} m/s, which it does not.`}
      {trigger.kind === 'cue' && 'Waits for another cue, which does not come.'}
    </Hint>
  );
}
