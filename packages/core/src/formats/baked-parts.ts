import type { Document, Node } from '@gltf-transform/core';
import type { SampledPart } from '../bake/index.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { movedPart, type PartPlace } from '../rider/index.js';

/** A node of a model and where it is in its parent, frame by frame. */
export interface BakedPart {
  readonly node: string;
  readonly places: readonly PartPlace[];
  readonly turns: boolean;
  readonly moves: boolean;
}

/** What moves of a model by itself; parts that the model does not have are left out. */
export function bakeParts(parts: readonly SampledPart[], model: Document): BakedPart[] {
  return [...new Set(parts.map(({ node }) => node))].flatMap((name): BakedPart[] => {
    const node = findNode(model.getRoot().listNodes(), name);
    const own = parts.filter((part) => part.node === name);
    if (!node) return [];
    const rest: PartPlace = {
      translation: [...node.getTranslation()] as Vec3,
      rotation: [...node.getRotation()] as Quat,
    };
    const places = Array.from(own[0].values, (_, i) =>
      own.reduce((place, part) => movedPart(place, part, part.values[i]), rest),
    );
    return [
      {
        node: name,
        places,
        turns: own.some(({ kind }) => kind === 'turn'),
        moves: own.some(({ kind }) => kind === 'move'),
      },
    ];
  });
}

/** The first node of a name. */
export function findNode(nodes: readonly Node[], name: string): Node | undefined {
  return nodes.find((node) => node.getName() === name);
}
