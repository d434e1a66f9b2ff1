import type { Node, Skin } from '@gltf-transform/core';
import { mat4 } from 'gl-matrix';
import { numbersOf } from '../gltf-scene.js';
import { PrimNames, matrixText, quoted, singleText, type UsdText } from './usd-text.js';
import { newMat4 } from '../../geometry/math/new-matrix.js';

/** A node's values over the frames, or its rest transform. */
export interface NodeOverTime {
  /** Time codes at which any of some nodes has a key. */
  codesOf(nodes: readonly Node[]): readonly number[];
  /** Local transform of a node at a time code. */
  at(node: Node, code: number): { translation: number[]; rotation: number[]; scale: number[] };
}

/** Skeleton of a skin: its joints and their ancestors below a rider, each relative to the one before as its node is. */
export class UsdSkeleton {
  /** Those that carry others first, as the schema wants them. */
  private readonly nodes: Node[];
  private readonly tokens: string[];
  /** By joint of the skin, as meshes count them, its place among these. */
  readonly order: readonly number[];

  constructor(
    private readonly rider: Node,
    private readonly skin: Skin,
  ) {
    const all = new Set<Node>();
    const add = (node: Node) => {
      const parent = node.getParentNode();
      if (parent && parent !== rider && !all.has(parent)) add(parent);
      all.add(node);
    };
    skin.listJoints().forEach(add);
    this.nodes = [...all];
    const names = new PrimNames();
    const paths = new Map<Node, string>();
    this.tokens = this.nodes.map((node) => {
      const parent = node.getParentNode();
      const above = (parent && paths.get(parent)) ?? '';
      const own = names.give(above, node.getName() || 'joint');
      const path = above === '' ? own : `${above}/${own}`;
      paths.set(node, path);
      return path;
    });
    const index = new Map(this.nodes.map((node, i) => [node, i]));
    this.order = skin.listJoints().map((joint) => index.get(joint) ?? 0);
  }

  /** @param shapes weights over time that meshes of this skeleton take */
  write(text: UsdText, name: string, path: string, time: NodeOverTime, shapes: readonly ShapeTrack[]): void {
    const bind = this.bindMatrices();
    text.prim('def', 'Skeleton', name, ['prepend apiSchemas = ["SkelBindingAPI"]'], () => {
      const tokens = `[${this.tokens.map(quoted).join(', ')}]`;
      text.attribute('uniform token[] joints', tokens);
      text.attribute('uniform matrix4d[] bindTransforms', `[${bind.map((m) => matrixText(m)).join(', ')}]`);
      const rest = this.nodes.map((node) => matrixText(node.getMatrix()));
      text.attribute('uniform matrix4d[] restTransforms', `[${rest.join(', ')}]`);
      text.rel('skel:animationSource', `${path}/Animation`);
      text.prim('def', 'SkelAnimation', 'Animation', [], () => {
        text.attribute('uniform token[] joints', tokens);
        const codes = time.codesOf(this.nodes);
        const list = (key: 'translation' | 'rotation' | 'scale') => (i: number) =>
          `[${this.nodes
            .map((node) => {
              const values = time.at(node, codes[i])[key];
              return key === 'rotation'
                ? `(${[3, 0, 1, 2].map((k) => singleText(values[k])).join(', ')})`
                : `(${values.map(singleText).join(', ')})`;
            })
            .join(', ')}]`;
        text.samples('float3[] translations', codes, list('translation'));
        text.samples('quatf[] rotations', codes, list('rotation'));
        text.samples('half3[] scales', codes, list('scale'));
        writeShapeTracks(text, shapes);
      });
    });
  }

  /** Bind matrices of the joints, in the rider's space. */
  private bindMatrices(): mat4[] {
    const inverse = this.skin.getInverseBindMatrices();
    const numbers = inverse && numbersOf(inverse);
    const bound = new Map<Node, mat4>();
    this.skin.listJoints().forEach((joint, j) => {
      const own = numbers ? [...numbers.subarray(16 * j, 16 * j + 16)] : [...newMat4()];
      bound.set(joint, mat4.invert(Array(16) as unknown as mat4, own as mat4) ?? newMat4());
    });
    return this.nodes.map((node) => bound.get(node) ?? this.standing(node));
  }

  private standing(node: Node): mat4 {
    const own = node.getMatrix() as mat4;
    const parent = node.getParentNode();
    if (!parent || parent === this.rider) return own;
    return mat4.multiply(Array(16) as unknown as mat4, this.standing(parent), own);
  }
}

/** The weights of one mesh's shapes over time. */
export interface ShapeTrack {
  readonly names: readonly string[];
  readonly codes: readonly number[];
  weightsAt(code: number): readonly number[];
}

/**
 * A mesh with shapes and no skin hangs on one joint that stays, in the space of its node: shapes are a skeleton's here.
 */
export function writeStillSkeleton(text: UsdText, name: string, path: string, shapes: ShapeTrack): void {
  text.prim('def', 'Skeleton', name, ['prepend apiSchemas = ["SkelBindingAPI"]'], () => {
    const one = `[${identityText()}]`;
    text.attribute('uniform token[] joints', '["still"]');
    text.attribute('uniform matrix4d[] bindTransforms', one);
    text.attribute('uniform matrix4d[] restTransforms', one);
    text.rel('skel:animationSource', `${path}/Animation`);
    text.prim('def', 'SkelAnimation', 'Animation', [], () => {
      text.attribute('uniform token[] joints', '["still"]');
      text.attribute('float3[] translations', '[(0, 0, 0)]');
      text.attribute('quatf[] rotations', '[(1, 0, 0, 0)]');
      text.attribute('half3[] scales', '[(1, 1, 1)]');
      writeShapeTracks(text, [shapes]);
    });
  });
}

const identityText = () => matrixText([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]);

function writeShapeTracks(text: UsdText, tracks: readonly ShapeTrack[]): void {
  if (tracks.length === 0) return;
  const names = tracks.flatMap((track) => track.names);
  const codes = [...new Set(tracks.flatMap((track) => track.codes))].sort((a, b) => a - b);
  text.attribute('uniform token[] blendShapes', `[${names.map(quoted).join(', ')}]`);
  text.samples(
    'float[] blendShapeWeights',
    codes,
    (i) => `[${tracks.flatMap((track) => track.weightsAt(codes[i]).map(singleText)).join(', ')}]`,
  );
}
