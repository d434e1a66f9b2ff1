import {
  metresPerValue,
  type FrameMapping,
  type Pace,
  type PaceKey,
  type Rider,
  type ShotPath,
} from '@fleet-rail/core';
import type { ScaleLinear } from 'd3-scale';

/** Turns a pace's frames and values into places of the diagram, and back. */
export interface PaceGeometry {
  readonly metres: number;
  /** Pixels across; null where the shot does not show that frame. */
  across(frame: number): number | null;
  up(value: number): number;
  frameAt(px: number): number;
  valueAt(py: number): number;
  /** Value for a pixel up. */
  readonly valuePerPixel: number;
}

export function paceGeometry(
  rider: Rider,
  pace: Pace,
  length: number,
  x: ScaleLinear<number, number>,
  y: ScaleLinear<number, number>,
  shown: FrameMapping,
): PaceGeometry {
  const metres = metresPerValue(pace, { length: length || 1 });
  const along = rider.attachment?.offset.along ?? 0;
  return {
    metres,
    across(frame) {
      const at = shown.shown(frame);
      return at === null ? null : x(at);
    },
    up: (value) => y(value * metres + along),
    frameAt: (px) => shown.own(x.invert(px)),
    valueAt: (py) => (y.invert(py) - along) / metres,
    valuePerPixel: (y.invert(0) - y.invert(1)) / metres,
  };
}

/** Values are rounded to the centimetre, or to a ten-thousandth of a lap. */
export function roundedValue(value: number, unit: Pace['unit']): number {
  return unit === 'metres' ? Math.round(value * 100) / 100 : Math.round(value * 1e4) / 1e4;
}

/** Pixels within which a key snaps to a mark. */
const SNAP = 7;

/** A value drawn to the nearest mark's level, in any lap, where that is near; else rounded. */
export function snappedValue(
  value: number,
  pace: Pace,
  geometry: PaceGeometry,
  path: ShotPath | undefined,
  length: number,
): number {
  const near = (path?.marks ?? [])
    .flatMap(({ distance }) => {
      const laps = path?.closed && length > 0 ? Math.round((value * geometry.metres - distance) / length) : 0;
      return [(distance + laps * length) / geometry.metres];
    })
    .filter((level) => Math.abs(geometry.up(level) - geometry.up(value)) <= SNAP)
    .sort((a, b) => Math.abs(a - value) - Math.abs(b - value))[0];
  return near ?? roundedValue(value, pace.unit);
}

/** Text of a stretch between two keys: its speed, or the duration of a stop. */
export function stretchText(key: PaceKey, next: PaceKey, metres: number, fps: number): string {
  const seconds = (next.frame - key.frame) / fps;
  const rise = (next.value - key.value) * metres;
  if (rise === 0 || key.ease === 'hold') return `stop ${seconds.toFixed(2)} s`;
  return speedText(rise / seconds);
}

/** A speed, m/s, as both read it. */
export function speedText(speed: number): string {
  return `${speed.toFixed(2)} m/s · ${(speed * 3.6).toFixed(1)} km/h`;
}
