import {
  AXES,
  Cue,
  CueAction,
  CueTrigger,
  ShotError,
  defaultsOf,
  freeId,
  hierarchyOfRider,
  numberedName,
  type Axis,
  type CueKey,
  type Rider,
  type Shot,
  withoutLooseBursts,
} from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { changeCue } from '../../edits/cue-edits';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldPair, Hint } from '../../ui/panel';
import type { QuantityKind } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { notify } from '../../ui/notices';
import { attempt } from '../../commands/attempt';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { AlsoDoes } from './cue-also';
import { CueKeys } from './cue-keys';
import { CuePresets } from './cue-presets';
import { WhatItWaitsFor } from './cue-status';
import { Card, CardHead } from './rows';

const SOURCES: readonly { id: CueTrigger['kind']; name: string }[] = [
  { id: 'distance', name: 'Distance' },
  { id: 'gap', name: 'Gap of two' },
  { id: 'frame', name: 'Frame' },
  { id: 'stop', name: 'Stop' },
  { id: 'speed', name: 'Speed' },
  { id: 'cue', name: 'Another cue' },
];
const STOP_ENDS = [
  { id: 'begin', name: 'its start' },
  { id: 'end', name: 'its end' },
] as const;
/** Units of a source's values. */
const UNITS: Readonly<Record<CueTrigger['kind'], { kind: QuantityKind; label: string; step: number }>> = {
  frame: { kind: 'frame', label: 'From frame', step: 1 },
  distance: { kind: 'length', label: 'Distance reached', step: 0.5 },
  gap: { kind: 'length', label: 'At least apart', step: 0.5 },
  stop: { kind: 'time', label: 'After', step: 0.1 },
  speed: { kind: 'speed', label: 'At least', step: 0.5 },
  cue: { kind: 'time', label: 'After', step: 0.1 },
};
const ACTIONS: readonly { id: CueAction['kind']; name: string }[] = [
  { id: 'start', name: 'Starts' },
  { id: 'stopEnd', name: 'Ends a stop' },
  { id: 'turn', name: 'Turns a part' },
  { id: 'move', name: 'Moves a part' },
  { id: 'play', name: 'Plays a clip' },
  { id: 'show', name: 'Shows or hides' },
  { id: 'facing', name: 'Blends facing' },
  { id: 'attachment', name: 'Blends onto its path' },
  { id: 'path', name: 'Switches to a path' },
  { id: 'camera', name: 'Cuts to' },
];
const PLAYS = [
  { id: 'once', name: 'Once' },
  { id: 'while', name: 'While it holds' },
] as const;
/** An action that starts when something else reaches a distance or time. */
export function CuesFold() {
  const desk = useDeskStore();
  const cues = useDesk(({ shot }) => shot.cues);
  const riders = useDesk(({ shot }) => shot.riders);
  const riderId = useDesk((state) => state.riderId);
  const add = () => {
    const waited = riders.find(({ id }) => id === riderId) ?? riders[0];
    const other = riders.find(({ id }) => id !== waited.id) ?? waited;
    attempt(desk, 'Add a cue', (shot: Shot) => {
      const name = numberedName('Cue', shot.cues);
      const cue: Cue = {
        ...defaultsOf(Cue),
        id: freeId(name, shot.cues),
        name,
        // A rider that waited for itself would never start: alone, it uses the frame.
        trigger:
          other.id === waited.id
            ? { ...defaultsOf(CueTrigger), kind: 'frame' }
            : { ...defaultsOf(CueTrigger), rider: waited.id },
        action: { ...defaultsOf(CueAction), rider: other.id, kind: 'start' },
        keys: goAt(10),
      };
      return { ...shot, cues: [...shot.cues, cue] };
    });
  };
  return (
    <Fold title={cues.length === 0 ? 'Cues' : `Cues (${cues.length})`} isOpen={cues.length > 0}>
      <Hint>A cue starts an action when something happens: a gate opens, a rider starts.</Hint>
      {cues.map((cue) => (
        <CueCard key={cue.id} cue={cue} riders={riders} />
      ))}
      <Buttons>
        <Button isDisabled={riders.length === 0} onPress={add}>
          <Plus aria-hidden /> Add a cue
        </Button>
      </Buttons>
      <CuePresets />
    </Fold>
  );
}

/** Actions that follow the value of their keys, from 0 to 1. */
const VALUED: ReadonlySet<CueAction['kind']> = new Set<CueAction['kind']>(['show', 'facing', 'attachment']);
const HINTS: Partial<Record<CueAction['kind'], string>> = {
  show: '1 shows it, 0 hides it.',
  facing: 'Influence of its aim, or of its path’s rotation: 0 to 1.',
  attachment: '0 is its rest pose, 1 is its path.',
  path: 'It continues at the nearest point of the other path; a string follows.',
};

/** On from a value, and off again a second or twelve metres later. */
const held = (at: number, seconds: boolean): CueKey[] => [
  { at: at - (seconds ? 0.25 : 1), value: 0, ease: 'smooth' },
  { at, value: 1, ease: 'smooth' },
  { at: at + (seconds ? 1 : 12), value: 1, ease: 'smooth' },
  { at: at + (seconds ? 1.25 : 13), value: 0, ease: 'smooth' },
];

/** A step from waiting to going. */
const goAt = (at: number): CueKey[] => [
  { at: at - 1, value: 0, ease: 'hold' },
  { at, value: 1, ease: 'hold' },
];

function CueCard({ cue, riders }: { cue: Cue; riders: readonly Rider[] }) {
  const desk = useDeskStore();
  const { trigger, action, keys } = cue;
  /** Why it stays off: now it would wait for itself. */
  const [circle, setCircle] = useState<string | null>(null);
  const change = (part: Partial<Cue>, gesture?: string) => {
    const { edit } = desk.getState();
    try {
      edit('Cue', changeCue(cue.id, circle === null ? part : { off: false, ...part }), gesture);
      setCircle(null);
    } catch (error) {
      if (!(error instanceof ShotError)) throw error;
      // An incomplete cue is kept, and not played.
      edit('Cue', changeCue(cue.id, { ...part, off: true }), gesture);
      setCircle(error.found);
    }
  };
  const names = riders.map(({ id, badge, name }) => ({ id, name: `${badge} ${name}` }));
  const moves = action.kind === 'turn' || action.kind === 'move';
  /** Whether its action follows the value of its keys, and not the moment at which that reaches 1. */
  const curved = moves || VALUED.has(action.kind) || (action.kind === 'play' && action.plays === 'while');
  const goes = keys.find(({ value }) => value >= 1);
  const parts = useParts(action.rider);
  const clips = useClips(action.rider);
  const acting = action.kind === 'camera' ? riders.filter(({ camera }) => camera !== null) : riders;
  const paths = useDesk(({ shot }) => shot.paths);
  const setAction = (kind: CueAction['kind']) => {
    const part = kind === 'turn' || kind === 'move';
    const valued = part || VALUED.has(kind);
    // After a stop a part takes a second; as something comes near, four metres.
    const over = UNITS[trigger.kind].kind === 'time' ? 1 : 4;
    const at = goes?.at ?? 10;
    const from = over === 1 ? at : at - over;
    const ease = kind === 'show' ? 'hold' : 'smooth';
    const opened: CueKey[] = [
      { at: from, value: 0, ease },
      { at: from + over, value: kind === 'turn' ? 90 : 1, ease },
    ];
    const node = part ? (action.node ?? parts[0]?.id ?? null) : null;
    const clip = kind === 'play' ? (action.clip ?? clips[0]?.id ?? null) : null;
    const camera = riders.find((rider) => rider.camera !== null)?.id;
    const own = riders.find(({ id }) => id === action.rider)?.attachment?.path;
    const path = kind === 'path' ? (action.path ?? paths.find(({ id }) => id !== own)?.id ?? null) : null;
    const rider = kind === 'camera' ? (camera ?? action.rider) : action.rider;
    if (kind === 'play' && clip === null) notify('error', 'The model of what it acts on has no clips.');
    else if (kind === 'path' && path === null)
      notify('error', 'There is no other path to switch to: add one at the Path step.');
    else if (kind === 'camera' && camera === undefined)
      notify('error', 'No rider is a camera yet: add one at the Attach step.');
    else
      change({
        action: { ...action, kind, node, clip, path, rider },
        moreActions: [],
        keys: valued ? (part === moves && curved ? keys : opened) : curved ? goAt(at) : keys,
      });
  };
  const others = useDesk(({ shot }) => shot.cues).filter(({ id }) => id !== cue.id);
  const unit = UNITS[trigger.kind];
  return (
    <Card role="group" aria-label={cue.name}>
      <CardHead>
        <Tick isSelected={!cue.off} onChange={(isOn) => change({ off: !isOn })}>
          {cue.name}
        </Tick>
        <IconButton
          label={`Delete ${cue.name}`}
          onPress={() =>
            desk
              .getState()
              .edit('Delete a cue', (shot) =>
                withoutLooseBursts({ ...shot, cues: shot.cues.filter(({ id }) => id !== cue.id) }),
              )
          }
        >
          <Trash2 aria-hidden />
        </IconButton>
      </CardHead>
      <FieldPair>
        <Select
          label="When"
          options={SOURCES}
          value={trigger.kind}
          onChange={(kind) =>
            change({
              trigger: {
                ...trigger,
                kind,
                rider: kind === 'frame' || kind === 'cue' ? null : (trigger.rider ?? riders[0].id),
                other: kind === 'gap' ? (trigger.other ?? action.rider) : null,
                cue: kind === 'cue' ? (others[0]?.id ?? null) : null,
              },
              // Seconds are counted from nought.
              ...(UNITS[kind].kind === 'time' && unit.kind !== 'time' && !curved && { keys: goAt(0) }),
            })
          }
        />
        {trigger.kind === 'cue' && (
          <Select
            label="Which cue"
            options={others.map(({ id, name }) => ({ id, name }))}
            value={trigger.cue ?? ''}
            onChange={(id) => change({ trigger: { ...trigger, cue: id } })}
          />
        )}
        {trigger.kind !== 'frame' && trigger.kind !== 'cue' && (
          <Select
            label="Rider"
            options={names}
            value={trigger.rider ?? ''}
            onChange={(rider) => change({ trigger: { ...trigger, rider } })}
          />
        )}
        {trigger.kind === 'gap' && (
          <Select
            label="And rider"
            options={names}
            value={trigger.other ?? ''}
            onChange={(other) => change({ trigger: { ...trigger, other } })}
          />
        )}
      </FieldPair>
      {trigger.kind === 'stop' && (
        <FieldPair>
          <QuantityField
            label="Which stop"
            kind="count"
            whole
            value={trigger.stop + 1}
            min={1}
            max={10_000}
            onChange={(stop, gesture) => change({ trigger: { ...trigger, stop: stop - 1 } }, gesture)}
          />
          <Select
            label="Counted from"
            options={STOP_ENDS}
            value={trigger.from}
            onChange={(from) => change({ trigger: { ...trigger, from } })}
          />
        </FieldPair>
      )}
      <FieldPair>
        <Select label="Action" options={ACTIONS} value={action.kind} onChange={setAction} />
        <Select
          label="Target"
          options={names.filter(({ id }) => acting.some((one) => one.id === id))}
          value={action.rider}
          onChange={(rider) =>
            change(
              moves || action.kind === 'play'
                ? {
                    action: { ...action, rider, node: null, clip: null, kind: 'start' },
                    moreActions: [],
                    keys: goAt(goes?.at ?? 0),
                  }
                : { action: { ...action, rider } },
            )
          }
        />
      </FieldPair>
      {action.kind === 'stopEnd' && (
        <QuantityField
          label="Which stop"
          kind="count"
          whole
          value={action.stop + 1}
          min={1}
          max={10_000}
          onChange={(stop, gesture) => change({ action: { ...action, stop: stop - 1 } }, gesture)}
        />
      )}
      {moves && (
        <FieldPair>
          <Select
            label="Part"
            options={parts}
            value={action.node ?? ''}
            onChange={(node) => change({ action: { ...action, node } })}
          />
          <Select
            label="Axis"
            options={AXES.map((id) => ({ id, name: id }))}
            value={action.axis}
            onChange={(axis: Axis) => change({ action: { ...action, axis } })}
          />
        </FieldPair>
      )}
      {action.kind === 'play' && (
        <FieldPair>
          <Select
            label="Clip"
            options={clips}
            value={action.clip ?? ''}
            onChange={(clip) => change({ action: { ...action, clip } })}
          />
          <Select
            label="Repeats"
            options={PLAYS}
            value={action.plays}
            onChange={(plays) =>
              change({
                action: { ...action, plays },
                keys:
                  plays === 'once'
                    ? goAt(goes?.at ?? 0)
                    : held(goes?.at ?? 0, UNITS[trigger.kind].kind === 'time'),
              })
            }
          />
        </FieldPair>
      )}
      {action.kind === 'play' && action.plays === 'once' && (
        <QuantityField
          label="Blend"
          kind="time"
          min={0}
          step={0.05}
          value={action.blend}
          onChange={(blend, gesture) => change({ action: { ...action, blend } }, gesture)}
        />
      )}
      {action.kind === 'path' && (
        <Select
          label="Path"
          options={paths.map(({ id, name }) => ({ id, name }))}
          value={action.path ?? ''}
          onChange={(path) => change({ action: { ...action, path } })}
        />
      )}
      {HINTS[action.kind] && <Hint>{HINTS[action.kind]}</Hint>}
      {curved ? (
        <CueKeys cue={cue} unit={unit.kind} onChange={(next, gesture) => change({ keys: next }, gesture)} />
      ) : (
        <QuantityField
          label={unit.label}
          kind={unit.kind}
          value={goes?.at ?? 0}
          step={unit.step}
          onChange={(at, gesture) => change({ keys: goAt(at) }, gesture)}
        />
      )}
      <AlsoDoes cue={cue} parts={parts} riders={riders} onChange={(also) => change({ moreActions: also })} />
      {cue.off && circle !== null && (
        <Hint role="status">Switched off because it waits for itself: {circle}.</Hint>
      )}
      {!cue.off && <WhatItWaitsFor cue={cue} riders={riders} />}
    </Card>
  );
}

/** The clips that a rider can play. */
function useClips(riderId: string): { id: string; name: string }[] {
  const riders = useDesk(({ shot }) => shot.riders);
  const hierarchies = useDesk((state) => state.hierarchies);
  const rider = riders.find(({ id }) => id === riderId);
  const clips = rider ? (hierarchyOfRider({ hierarchies }, rider)?.clips ?? []) : [];
  return clips.map(({ name }) => ({ id: name, name }));
}

/** The parts of a rider's model by name. */
function useParts(riderId: string): { id: string; name: string }[] {
  const model = useDesk(({ shot }) => shot.riders.find(({ id }) => id === riderId)?.model ?? null);
  const asset = useDesk(({ shot }) => shot.models.find(({ id }) => id === model)?.source.asset);
  const nodes = useDesk(({ models }) => models.find(({ id }) => id === asset)?.facts.nodes);
  return useMemo(() => [...new Set(nodes ?? [])].filter(Boolean).map((id) => ({ id, name: id })), [nodes]);
}
