import { Document, type Node } from '@gltf-transform/core';
import type { Vec3 } from '../geometry/math/vec.js';
import { parseBvh, type BvhChannel } from './bvh-grammar.js';
import { addBone } from './bvh-mesh.js';
import { metresPerUnit, turnOf } from './bvh-units.js';

/**
 * A figure of bones with one clip, from a BVH file (Biovision hierarchy): joints with offsets and Euler rotations in
 * the order of its channels. It gets plain bones as meshes.
 *
 * @throws FormatError with the line that is not as expected
 */
export function readBvh(text: string, file: string): Document {
  const read = parseBvh(text, file);
  const { joints, motion, step } = read;
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene('scene');
  const scale = metresPerUnit(read);
  const nodes = joints.map(({ name, offset }) =>
    document.createNode(name).setTranslation(offset.map((value) => value * scale) as Vec3),
  );
  nodes.forEach((node, i) => {
    const { parent } = joints[i];
    if (parent < 0) scene.addChild(node);
    else {
      nodes[parent].addChild(node);
      addBone(document, buffer, nodes[parent], node.getTranslation());
    }
  });
  const clip = document.createAnimation(file.replace(/^.*[\\/]/, '').replace(/\.bvh$/i, ''));
  const accessor = (type: 'SCALAR' | 'VEC3' | 'VEC4', values: number[]) =>
    document.createAccessor().setType(type).setArray(Float32Array.from(values)).setBuffer(buffer);
  const times = accessor(
    'SCALAR',
    motion.map((_, i) => i * step),
  );
  const add = (node: Node, path: 'translation' | 'rotation', values: number[]) => {
    const output = accessor(path === 'rotation' ? 'VEC4' : 'VEC3', values);
    const sampler = document.createAnimationSampler().setInput(times).setOutput(output);
    clip.addSampler(sampler);
    clip.addChannel(
      document.createAnimationChannel().setTargetNode(node).setTargetPath(path).setSampler(sampler),
    );
  };
  let at = 0;
  joints.forEach(({ channels, offset }, i) => {
    const from = at;
    at += channels.length;
    if (channels.some((channel) => channel.endsWith('rotation')))
      add(
        nodes[i],
        'rotation',
        motion.flatMap((frame) => turnOf(channels, frame, from)),
      );
    if (channels.some((channel) => channel.endsWith('position')))
      add(
        nodes[i],
        'translation',
        motion.flatMap((frame) =>
          [0, 1, 2].map((k) => {
            const channel = channels.indexOf(`${'XYZ'[k]}position` as BvhChannel);
            return scale * (channel < 0 ? offset[k] : frame[from + channel]);
          }),
        ),
      );
  });
  return document;
}
