import type { Node } from '@gltf-transform/core';
import { quat } from 'gl-matrix';
import { lowerBound } from '../../geometry/math/search.js';
import type { Quat } from '../../geometry/math/vec.js';
import { changesIn, widthOf } from '../channel-samples.js';
import type { AnimationChannel } from '../compose-shot.js';
import type { NodeOverTime } from './usd-skins.js';

/** How nodes move, by time codes: frames. */
export class UsdTime implements NodeOverTime {
  private readonly channels = new Map<Node, AnimationChannel[]>();
  private readonly codes = new Map<AnimationChannel, readonly number[]>();

  /** @param kept by channel the samples that stay; null where all do */
  constructor(
    private readonly first: number,
    channels: readonly AnimationChannel[],
    kept: readonly (readonly number[] | null)[],
  ) {
    channels.forEach((channel, i) => {
      const own = this.channels.get(channel.node);
      if (own) own.push(channel);
      else this.channels.set(channel.node, [channel]);
      this.codes.set(channel, this.keptCodes(channel, kept[i]));
    });
  }

  codesOf(nodes: readonly Node[]): readonly number[] {
    const all = nodes.flatMap((node) => this.channelsOf(node).flatMap((one) => this.codesOfChannel(one)));
    return all.length === 0 ? [this.first] : [...new Set(all)].sort((a, b) => a - b);
  }

  at(node: Node, code: number): { translation: number[]; rotation: number[]; scale: number[] } {
    return {
      translation: this.valueAt(node, 'translation', code) ?? node.getTranslation(),
      rotation: this.valueAt(node, 'rotation', code) ?? node.getRotation(),
      scale: this.valueAt(node, 'scale', code) ?? node.getScale(),
    };
  }

  codesOfChannel(channel: AnimationChannel): readonly number[] {
    return this.codes.get(channel) ?? [];
  }

  channelsOf(node: Node): readonly AnimationChannel[] {
    return this.channels.get(node) ?? [];
  }

  private keptCodes(
    { values, path, steps, held, node }: AnimationChannel,
    kept: readonly number[] | null,
  ): number[] {
    const width = widthOf({ path, node });
    const samples = held ? changesIn(values, width) : (kept ?? [...Array(values.length / width).keys()]);
    return samples.map((i) => this.first + i / steps);
  }

  sampleOf({ steps }: AnimationChannel, code: number): number {
    return Math.round((code - this.first) * steps);
  }

  private valueAt(node: Node, path: 'translation' | 'rotation' | 'scale', code: number): number[] | null {
    const channel = this.channelsOf(node).find((one) => one.path === path);
    return channel ? this.mixed(channel, path === 'rotation' ? 4 : 3, code) : null;
  }

  /** Value of a channel at a time code that need not be one of its own, as a reader would interpolate it. */
  mixed(channel: AnimationChannel, width: number, code: number): number[] {
    const codes = this.codesOfChannel(channel);
    const next = Math.min(codes.length - 1, lowerBound(codes, code));
    const before = codes[next] > code && next > 0 ? next - 1 : next;
    const value = (i: number) => {
      const at = width * this.sampleOf(channel, codes[i]);
      return [...channel.values.subarray(at, at + width)];
    };
    if (before === next) return value(next);
    const t = (code - codes[before]) / (codes[next] - codes[before]);
    const [from, to] = [value(before), value(next)];
    if (width === 4 && channel.path === 'rotation')
      return [...quat.slerp([0, 0, 0, 1], from as Quat, to as Quat, t)];
    return from.map((one, k) => one + t * (to[k] - one));
  }
}
