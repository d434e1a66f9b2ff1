import type { Shot } from '../../document/shot.js';

/** The shot without bursts that waited for a cue that is gone. */
export function withoutLooseBursts(shot: Shot): Shot {
  const isThere = (cue: string | null) => cue === null || shot.cues.some(({ id }) => id === cue);
  if (shot.riders.every(({ emitter }) => emitter?.bursts.every(({ cue }) => isThere(cue)) ?? true))
    return shot;
  const riders = shot.riders.map((rider) =>
    rider.emitter === null
      ? rider
      : {
          ...rider,
          emitter: { ...rider.emitter, bursts: rider.emitter.bursts.filter(({ cue }) => isThere(cue)) },
        },
  );
  return { ...shot, riders };
}
