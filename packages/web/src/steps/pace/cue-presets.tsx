import {
  Cue,
  CueAction,
  CueTrigger,
  defaultsOf,
  freeId,
  numberedName,
  type CueKey,
  type Shot,
} from '@fleet-rail/core';
import { Buttons, Hint } from '../../ui/panel';
import { Button } from '../../ui/button';
import { attempt } from '../../commands/attempt';
import { useDesk, useDeskStore } from '../../state/desk-store';

const OPEN = 90;

/** Common cues in plain words, for the selected rider and another. */
export function CuePresets() {
  const desk = useDeskStore();
  const riders = useDesk(({ shot }) => shot.riders);
  const riderId = useDesk((state) => state.riderId);
  const stops = useDesk(
    ({ evaluation }) => evaluation?.riders.get(riderId ?? '')?.timing?.ownStops.length ?? 0,
  );
  const models = useDesk((state) => state.models);
  const inShot = useDesk(({ shot }) => shot.models);
  const rider = riders.find(({ id }) => id === riderId);
  if (!rider || stops === 0) return null;
  const asset = inShot.find(({ id }) => id === rider.model)?.source.asset;
  const nodes = models.find(({ id }) => id === asset)?.facts.nodes.filter(Boolean) ?? [];
  const waiting = riders.find(
    (one) => one.id !== rider.id && one.attachment !== null && one.kind === 'character',
  );
  const add = (label: string, make: (shot: Shot) => Omit<Cue, 'id' | 'name' | 'moreActions' | 'off'>) =>
    attempt(desk, label, (shot) => {
      const name = numberedName('Cue', shot.cues);
      const cue: Cue = { ...defaultsOf(Cue), ...make(shot), id: freeId(name, shot.cues), name };
      return { ...shot, cues: [...shot.cues, cue] };
    });
  const on = { ...defaultsOf(CueTrigger), kind: 'stop' as const, rider: rider.id };
  const does = defaultsOf(CueAction);
  const key = (at: number, value: number, ease: CueKey['ease'] = 'smooth'): CueKey => ({ at, value, ease });
  /** Open over the first second of the stop, and closed again with its last. */
  const seconds = (shot: Shot): number => {
    const stop = desk.getState().evaluation?.riders.get(rider.id)?.timing?.stops[0];
    return stop ? Math.max(2, (Math.min(stop.to, shot.range.last) - stop.from) / shot.fps) : 4;
  };
  return (
    <>
      <Hint>Or, when {rider.badge} has stopped:</Hint>
      <Buttons>
        {nodes.length > 0 && (
          <Button
            onPress={() =>
              add('Open and close', (shot) => {
                const long = seconds(shot);
                return {
                  trigger: on,
                  action: { ...does, kind: 'turn', rider: rider.id, node: nodes[0] },
                  keys: [key(0, 0), key(1, OPEN), key(long - 1, OPEN), key(long, 0)],
                };
              })
            }
          >
            A part opens over 1 s, and closes before it leaves
          </Button>
        )}
        {waiting && (
          <Button
            onPress={() =>
              add(`Start ${waiting.badge}`, () => ({
                trigger: on,
                action: { ...does, kind: 'start', rider: waiting.id },
                keys: [key(-0.04, 0, 'hold'), key(0, 1, 'hold')],
              }))
            }
          >
            {waiting.badge} {waiting.name} sets off
          </Button>
        )}
      </Buttons>
    </>
  );
}
