import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Document, WebIO } from '@gltf-transform/core';

/** A folder with a path and a model, for tests of commands. */
export class RideFolder {
  readonly folder = mkdtempSync(join(tmpdir(), 'ride-'));

  /** @param d what the path draws, as SVG has it */
  static async of(d: string): Promise<RideFolder> {
    const folder = new RideFolder();
    process.env.XDG_STATE_HOME = folder.path('state');
    writeFileSync(
      folder.path('lane.svg'),
      `<svg xmlns="http://www.w3.org/2000/svg"><path id="lane" d="${d}"/></svg>`,
    );
    const document = new Document();
    document.createScene().addChild(document.createNode('cart'));
    document.createBuffer();
    writeFileSync(folder.path('cart.glb'), await new WebIO().writeBinary(document));
    return folder;
  }

  readonly path = (name: string): string => join(this.folder, name);

  /** Puts a car in place of the cart: a box on four wheels of 0.4 m, its axles 1.2 m before and behind its middle. */
  async putCar(): Promise<void> {
    const document = new Document();
    const buffer = document.createBuffer();
    const scene = document.createScene();
    const add = (name: string, place: [number, number, number], corners: number[]) => {
      const places = document.createAccessor().setType('VEC3').setArray(Float32Array.from(corners));
      const faces = Array.from({ length: corners.length / 3 - 2 }, (_, i) => [i, i + 1, i + 2]).flat();
      const indices = document.createAccessor().setType('SCALAR').setArray(Uint16Array.from(faces));
      const primitive = document
        .createPrimitive()
        .setAttribute('POSITION', places.setBuffer(buffer))
        .setIndices(indices.setBuffer(buffer));
      const mesh = document.createMesh(name).addPrimitive(primitive);
      scene.addChild(document.createNode(name).setMesh(mesh).setTranslation(place));
    };
    const drum = Array.from({ length: 25 }, (_, i) => (i * Math.PI) / 12).flatMap((a) =>
      [-0.1, 0.1].flatMap((x) => [x, 0.4 * Math.cos(a), 0.4 * Math.sin(a)]),
    );
    const box = [-0.7, 0.7].flatMap((x) => [-0.4, 0.4].flatMap((y) => [-2, 2].flatMap((z) => [x, y, z])));
    add('body', [0, 0.9, 0], box);
    for (const [end, z] of [
      ['front', 1.2],
      ['rear', -1.2],
    ] as const) {
      add(`wheel ${end} left`, [0.8, 0.4, z], drum);
      add(`wheel ${end} right`, [-0.8, 0.4, z], drum);
    }
    writeFileSync(this.path('cart.glb'), await new WebIO().writeBinary(document));
  }

  /** The words of a command that makes a shot of both. */
  newShot(name: string, ...more: string[]): string[] {
    const made = ['--model', this.path('cart.glb'), '--out', this.path(name)];
    return ['new', '--path', this.path('lane.svg'), ...made, ...more];
  }

  end(): void {
    rmSync(this.folder, { recursive: true });
  }
}
