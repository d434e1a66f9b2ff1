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

  /** The words of a command that makes a shot of both. */
  newShot(name: string, ...more: string[]): string[] {
    const made = ['--model', this.path('cart.glb'), '--out', this.path(name)];
    return ['new', '--path', this.path('lane.svg'), ...made, ...more];
  }

  end(): void {
    rmSync(this.folder, { recursive: true });
  }
}
