import {
  channelFrames,
  channelLimits,
  channelPace,
  channelValue,
  compilePace,
  curveRidden,
  hasOwnPace,
  insertKey,
  keyChannel,
  withChannelKeys,
  type ChannelId,
  type Pace,
  type PaceKey,
  type Rider,
} from '@fleet-rail/core';
import type { ScaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { changePace, changeRider } from '../../edits/rider-edits';
import { showNumber } from '../../ui/quantity';
import { CHANNELS } from '../../ui/words/channel-names';
import { useDesk } from '../../state/desk-store';
import { paceGeometry, roundedValue, snappedValue, stretchText, type PaceGeometry } from './pace-geometry';
import { useShownFrames } from './use-shown-frames';

type Scale = ScaleLinear<number, number>;

/** A line of the selected rider whose keys can be taken hold of: its distance, or one of its channels. */
export interface KeyedLine {
  readonly rider: Rider;
  /** The keys, as a pace has them. */
  readonly pace: Pace;
  readonly geometry: PaceGeometry;
  /** The value at an own frame; null where there is none. */
  readonly curve: ((frame: number) => number) | null;
  change(label: string, next: (before: Pace) => Pace, gesture?: string): void;
  /** Puts a key at an own frame. */
  add(frame: number): void;
  /** A value as it is set, and snapped. */
  rounded(value: number): number;
  snapped(value: number, geometry: PaceGeometry): number;
  /** Step of a key by an arrow key. */
  readonly step: number;
  readonly unit: string;
  /** A value in words, and what the stretch between two keys does. */
  told(value: number): string;
  toldStretch(key: PaceKey, next: PaceKey): string;
}

/** Keyboard steps: up by a tenth of a metre, or a hundredth of a lap. */
const STEP = { metres: 0.1, laps: 0.01 };

/** Keys of the selected rider's distance; null without own keys. */
export function usePaceLine(rider: Rider | null, x: Scale, y: Scale | undefined): KeyedLine | null {
  const shot = useDesk((state) => state.shot);
  const edit = useDesk((state) => state.edit);
  const length = useDesk((state) => state.evaluation?.paths.get(rider?.attachment?.path ?? '')?.length ?? 0);
  const shown = useShownFrames(shot, rider);
  const pace = rider?.attachment && hasOwnPace(rider.attachment) ? rider.attachment.pace : null;
  const curve = rider ? curveRidden(shot, rider) : null;
  const { fps } = shot;
  const compiled = useMemo(
    () => (curve && pace?.mode === 'keys' ? compilePace(pace, fps, curve) : null),
    [pace, fps, curve],
  );
  if (!rider || !pace || pace.mode !== 'keys' || rider.frozen || !y) return null;
  const geometry = paceGeometry(rider, pace, length, x, y, shown);
  const path = shot.paths.find(({ id }) => id === rider.attachment?.path);
  const change: KeyedLine['change'] = (label, next, gesture) =>
    edit(label, changePace(rider.id, next), gesture);
  return {
    rider,
    pace,
    geometry,
    curve: compiled && ((frame) => compiled.distance(frame) / geometry.metres),
    change,
    add: (frame) => change('Add key', (before) => insertKey(before, frame)),
    rounded: (value) => roundedValue(value, pace.unit),
    snapped: (value, at) => snappedValue(value, pace, at, path, length),
    step: STEP[pace.unit],
    unit: pace.unit,
    told: (value) => `${showNumber(value * geometry.metres, 2)} m`,
    toldStretch: (key, next) => stretchText(key, next, geometry.metres, fps),
  };
}

/** Keys of one of the selected rider's channels; null if it is not shown. */
export function useChannelLine(
  rider: Rider | null,
  id: ChannelId | null,
  x: Scale,
  y: Scale | undefined,
): KeyedLine | null {
  const shot = useDesk((state) => state.shot);
  const edit = useDesk((state) => state.edit);
  if (rider === null || id === null || !y) return null;
  const shown = channelFrames(shot, rider, id);
  const { unit, step } = CHANNELS[id];
  const change: KeyedLine['change'] = (label, next, gesture) =>
    edit(
      label,
      changeRider(rider.id, (one) => withChannelKeys(one, id, next(channelPace(one, id)).keys)),
      gesture,
    );
  const told = (value: number) => `${showNumber(value, 3)}${unit && ` ${unit}`}`;
  const [low, high] = channelLimits(id);
  const rounded = (value: number) => Number((Math.round(value / step) * step).toFixed(6));
  return {
    rider,
    pace: channelPace(rider, id),
    geometry: {
      metres: 1,
      across(frame) {
        const at = shown.shown(frame);
        return at === null ? null : x(at);
      },
      up: (value) => y(value),
      frameAt: (px) => shown.own(x.invert(px)),
      valueAt: (py) => y.invert(py),
      valuePerPixel: y.invert(0) - y.invert(1),
    },
    curve: channelValue(rider, id),
    change,
    add: (frame) =>
      edit(
        'Add key',
        changeRider(rider.id, (one) => keyChannel(one, id, frame)),
      ),
    rounded,
    snapped: (value) => Math.min(high, Math.max(low, rounded(value))),
    step,
    unit,
    told,
    toldStretch: (key, next) => `${told(key.value)} → ${told(next.value)}`,
  };
}
