import { Document, WebIO } from '@gltf-transform/core';
import { KINDS, NAMINGS, type Kind } from '../../../test/model-kinds.js';
import { readModel } from '../../formats/model-read.js';
import type { ModelFacts } from '../../formats/model-read.js';

const NOSES = ['+z', '+x', '-z', '-x'] as const;

/** Facing found in a kind with named parts, turned by right angles, made in metres or in centimetres. */
async function factsOf(
  { parts }: Kind,
  naming: string,
  turns: number,
  centimetres: boolean,
): Promise<ModelFacts> {
  const model = new Document();
  const buffer = model.createBuffer();
  const root = model.createNode('root');
  model.createScene().addChild(root);
  const unit = centimetres ? 100 : 1;
  root.setScale([1 / unit, 1 / unit, 1 / unit]);
  const placed = ([x, y, z]: readonly number[]): [number, number, number] => {
    for (let i = 0; i < turns; i++) [x, z] = [z, -x];
    return [x * unit, y * unit, z * unit];
  };
  parts.forEach(([what, { places, faces }, at], i) => {
    const corners = Array.from({ length: places.length / 3 }, (_, k) =>
      placed(places.slice(3 * k, 3 * k + 3)),
    );
    const positions = model.createAccessor().setType('VEC3').setArray(Float32Array.from(corners.flat()));
    const indices = model.createAccessor().setType('SCALAR').setArray(Uint16Array.from(faces));
    const primitive = model
      .createPrimitive()
      .setAttribute('POSITION', positions.setBuffer(buffer))
      .setIndices(indices.setBuffer(buffer));
    const node = model.createNode(NAMINGS[naming](what, i)).setTranslation(placed(at));
    root.addChild(node.setMesh(model.createMesh().addPrimitive(primitive)));
  });
  return (await readModel(await new WebIO().writeBinary(model), 'model.glb')).facts;
}

const CASES = Object.keys(KINDS).flatMap((kind) =>
  Object.keys(NAMINGS).map((naming) => [kind, naming] as const),
);

it.each(CASES)(
  'of a %s named by %s the nose is right or asked for, and no wrong rig is offered',
  async (name, naming) => {
    const kind = KINDS[name];
    for (let turns = 0; turns < 4; turns++) {
      const { facing, rig } = await factsOf(kind, naming, turns, turns % 2 === 1);
      expect(facing.up).toBe('+y');
      const told = facing.confidence >= 0.5;
      // A model without a front is asked about, whatever its name.
      if (kind.faceless) expect(told).toBe(false);
      else if (told) expect(facing.forward).toBe(NOSES[turns]);
      expect(rig.ball).toBeNull();
      expect(rig.wheels).toHaveLength(kind.wheels ?? 0);
    }
  },
);

it('where parts are named, most noses are told without asking', async () => {
  const named = Object.keys(NAMINGS).filter((naming) => naming !== 'numbers' && naming !== 'none');
  let [told, all] = [0, 0];
  for (const [name, kind] of Object.entries(KINDS))
    for (const naming of kind.faceless ? [] : named) {
      all++;
      if ((await factsOf(kind, naming, 0, false)).facing.confidence >= 0.5) told++;
      else expect(name).toBe('boat');
    }
  expect(told / all).toBeGreaterThan(0.85);
});
