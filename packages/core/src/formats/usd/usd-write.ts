import type { Document, Material, Mesh, Node, Primitive } from '@gltf-transform/core';
import type { SampledShot } from '../../shot/bake/sample-shot.js';
import { composeShot, type ComposedShot, type ZoomedCamera } from '../compose-shot.js';
import { grainMesh } from '../glb-spray.js';
import { restoreNames } from '../node-names.js';
import { keysInWorld } from '../thin-world.js';
import { customData, writeHead } from './usd-head.js';
import { UsdMaterials, type UsdPicture } from './usd-materials.js';
import { SCHEMAS, facesOf, shapeNamesOf, writeGeometry, writeShapes, writeSkinning } from './usd-meshes.js';
import { UsdSkeleton, writeStillSkeleton, type ShapeTrack } from './usd-skins.js';
import { writeSpray } from './usd-sprays.js';
import { PrimNames, UsdText, quatText, quoted, singleText, tuple } from './usd-text.js';
import { UsdTime } from './usd-time.js';

/** A shot as a USD layer in text, and the pictures that lie beside it. */
export interface UsdFiles {
  readonly layer: readonly string[];
  readonly pictures: readonly UsdPicture[];
}

/** How a shot is written as USD. */
export interface UsdChoice {
  /** As for GLB: see {@link GlbChoice}. */
  readonly within?: number;
  readonly turns?: number;
  /** The folder beside the layer that pictures lie in. */
  readonly folder?: string;
}

/**
 * A baked shot as USD ASCII: one Xform a rider and part, moved by time samples whose codes are frames; meshes, skins as UsdSkel,
 * cameras, surfaces as UsdPreviewSurface, sprays as PointInstancers. Source of all schemas: the reference of OpenUSD, 23.11.
 *
 * @param models by the document's model ids: what {@link readModel} gave; each is left unchanged
 */
export function writeUsd(
  sampled: SampledShot,
  models: ReadonlyMap<string, Document>,
  { within = 0, turns = within, folder = 'pictures' }: UsdChoice = {},
): UsdFiles {
  const composed = composeShot(sampled, models, false);
  return new UsdShot(
    sampled,
    composed,
    folder,
    keysInWorld(composed.scene, composed.channels, { within, turns }),
  ).write();
}

/** Scope of meshes that several nodes share. */
const SHARED = '_Shared';

class UsdShot {
  private readonly text = new UsdText();
  private readonly names = new PrimNames();
  private readonly root: string;
  private readonly materials: UsdMaterials;
  private readonly zooms: ReadonlyMap<Node, ZoomedCamera>;
  private readonly shared = new Map<Primitive, string>();
  private readonly time: UsdTime;
  /** By rider that sprays, what a particle of it looks like. */
  private readonly prototypes: ReadonlyMap<string, Node>;

  constructor(
    private readonly sampled: SampledShot,
    private readonly composed: ComposedShot,
    folder: string,
    kept: readonly (readonly number[] | null)[],
  ) {
    const { channels, zooms } = composed;
    this.prototypes = this.dressPrototypes();
    composed.instancers.close();
    restoreNames(composed.document);
    this.root = `/${this.names.give('', sampled.shot.name || 'Shot')}`;
    this.materials = new UsdMaterials(
      this.materialsSeen(),
      `${this.root}/${this.names.give(this.root, 'Materials')}`,
      folder,
    );
    this.time = new UsdTime(sampled.first, channels, kept);
    this.zooms = new Map(zooms.map((zoom) => [zoom.node, zoom]));
  }

  write(): UsdFiles {
    const { sampled, composed, text } = this;
    const { shot } = sampled;
    this.findShared();
    writeHead(text, this.root.slice(1), sampled, composed.document.getRoot().getAsset());
    text.prim(
      'def',
      'Xform',
      this.root.slice(1),
      [`displayName = ${quoted(shot.name)}`, 'kind = "assembly"'],
      () => {
        this.materials.write(text);
        for (const node of composed.scene.listChildren()) this.writeTop(node);
        shot.riders.forEach((rider, r) => {
          const spray = sampled.sprays[r];
          if (!spray) return;
          const name = this.names.give(this.root, `${rider.name} spray`);
          const prototype = this.prototypes.get(rider.id);
          writeSpray(text, name, `${this.root}/${name}`, rider, spray, sampled, (path) => {
            if (prototype) this.writeNode(prototype, path, 'Xform');
          });
        });
      },
    );
    this.writeShared();
    return { layer: [...text.parts()], pictures: this.materials.pictures };
  }

  /** A rider, or a dressing. */
  private writeTop(node: Node): void {
    const path = `${this.root}/${this.names.give(this.root, node.getName())}`;
    const skins: UsdSkin[] = [];
    const shaped = holdsSkeleton(node);
    node.traverse((below) => {
      const skin = below.getSkin();
      if (!skin || !below.getMesh()) return;
      const name = this.names.give(path, 'Skeleton');
      skins.push({ node: below, skeleton: new UsdSkeleton(node, skin), path: `${path}/${name}` });
    });
    this.writeNode(node, path, shaped ? 'SkelRoot' : 'Xform', () => {
      for (const { node: worn, skeleton, path: at } of skins) {
        const mesh = worn.getMesh();
        const shapes = mesh && this.shapesOf(worn, mesh);
        skeleton.write(this.text, last(at), at, this.time, shapes ? [shapes] : []);
        if (mesh) this.writeMesh(worn, mesh, path, { skeleton, path: at });
      }
    });
  }

  private writeNode(node: Node, path: string, type: string, also?: () => void): void {
    const { text } = this;
    const extras = node.getExtras();
    const metadata = [
      ...(node.getName() && node.getName() !== last(path) ? [`displayName = ${quoted(node.getName())}`] : []),
      ...customData(extras),
    ];
    const camera = node.getCamera();
    text.prim('def', camera ? 'Camera' : type, last(path), metadata, () => {
      this.writePlace(node);
      if (camera) this.writeCamera(node);
      also?.();
      const mesh = node.getMesh();
      if (mesh && !node.getSkin()) this.writeMesh(node, mesh, path, null);
      for (const child of node.listChildren())
        this.writeNode(child, `${path}/${this.names.give(path, child.getName() || 'part')}`, 'Xform');
    });
  }

  private writePlace(node: Node): void {
    const { text } = this;
    const put = (key: 'translation' | 'rotation' | 'scale', declaredAs: string, value: UsdOf) => {
      const channel = this.time.channelsOf(node).find((one) => one.path === key && !one.held);
      const still = {
        translation: node.getTranslation(),
        rotation: node.getRotation(),
        scale: node.getScale(),
      };
      if (!channel) return text.attribute(declaredAs, value(still[key], 0));
      const width = key === 'rotation' ? 4 : 3;
      const codes = this.time.codesOfChannel(channel);
      text.samples(declaredAs, codes, (i) =>
        value(channel.values, width * this.time.sampleOf(channel, codes[i])),
      );
    };
    put('translation', 'double3 xformOp:translate', (values, at) => tuple(values, at, 3));
    put('rotation', 'quatf xformOp:orient', quatText);
    put('scale', 'float3 xformOp:scale', (values, at) => tuple(values, at, 3));
    text.attribute(
      'uniform token[] xformOpOrder',
      '["xformOp:translate", "xformOp:orient", "xformOp:scale"]',
    );
    const shown = this.time.channelsOf(node).find(({ held }) => held);
    if (!shown) return;
    const codes = this.time.codesOfChannel(shown);
    const seen = codes.map((code) => {
      const at = 3 * this.time.sampleOf(shown, code);
      return shown.values.subarray(at, at + 3).some((value) => value !== 0);
    });
    text.samples('token visibility', codes, (i) => (seen[i] ? '"inherited"' : '"invisible"'));
  }

  /** Lengths of a lens are in tenths of a scene unit: a metre here, so that 36 mm are 0.36. */
  private writeCamera(node: Node): void {
    const { text } = this;
    const camera = node.getCamera();
    const sensor = Number(node.getExtras().sensorMillimetres ?? 36);
    if (camera === null) return;
    const aspect = camera.getAspectRatio() || 1;
    text.attribute(
      'token projection',
      camera.getType() === 'orthographic' ? '"orthographic"' : '"perspective"',
    );
    text.attribute(
      'float2 clippingRange',
      `(${singleText(camera.getZNear())}, ${singleText(camera.getZFar() || 1e6)})`,
    );
    text.attribute('float horizontalAperture', singleText(sensor / 100));
    text.attribute('float verticalAperture', singleText(sensor / aspect / 100));
    const zoom = this.zooms.get(node);
    if (zoom)
      text.samples(
        'float focalLength',
        [...zoom.focals.keys()].map((i) => this.sampled.first + i),
        (i) => singleText(zoom.focals[i] / 100),
      );
    else {
      const focal = sensor / aspect / 2 / Math.tan(camera.getYFov() / 2);
      text.attribute('float focalLength', singleText(focal / 100));
    }
  }

  private writeMesh(
    node: Node,
    mesh: Mesh,
    parent: string,
    skin: { skeleton: UsdSkeleton; path: string } | null,
  ): void {
    const shapes = this.shapesOf(node, mesh);
    const own = shapes && !skin ? `${parent}/${this.names.give(parent, 'Shapes')}` : null;
    if (own && shapes) writeStillSkeleton(this.text, last(own), own, shapes);
    mesh.listPrimitives().forEach((primitive) => {
      const name = this.names.give(parent, `${mesh.getName() || node.getName() || 'mesh'} mesh`);
      const material = this.materials.pathOf(primitive.getMaterial());
      const from = this.shared.get(primitive);
      const schemas = [
        ...(material ? ['MaterialBindingAPI'] : []),
        ...(skin || own ? ['SkelBindingAPI'] : []),
      ];
      const metadata = [
        ...(from ? [`inherits = <${from}>`] : []),
        ...(schemas.length > 0 ? [`prepend apiSchemas = [${schemas.map(quoted).join(', ')}]`] : []),
      ];
      const type = from ? '' : SCHEMAS[facesOf(primitive).kind];
      this.text.prim('def', type, name, metadata, () => {
        if (!from) writeGeometry(this.text, primitive);
        if (material) this.text.rel('material:binding', material);
        if (skin) this.bindTo(skin.path, skin.skeleton.order, primitive);
        if (own) this.bindStill(own);
        if (shapes) writeShapes(this.text, primitive, `${parent}/${name}`, shapes.names);
      });
    });
  }

  private bindTo(skeleton: string, order: readonly number[], primitive: Primitive): void {
    this.text.rel('skel:skeleton', skeleton);
    this.text.attribute('matrix4d primvars:skel:geomBindTransform', IDENTITY);
    writeSkinning(this.text, primitive, order);
  }

  private bindStill(skeleton: string): void {
    this.text.rel('skel:skeleton', skeleton);
    this.text.attribute('matrix4d primvars:skel:geomBindTransform', IDENTITY);
    const all = ['elementSize = 1', 'interpolation = "constant"'];
    this.text.attribute('int[] primvars:skel:jointIndices', '[0]', all);
    this.text.attribute('float[] primvars:skel:jointWeights', '[1]', all);
  }

  /** The shapes of a node's mesh and how far each is taken. */
  private shapesOf(node: Node, mesh: Mesh): ShapeTrack | null {
    const given = new PrimNames();
    const names = shapeNamesOf(mesh, (name) => given.give('', name));
    if (names.length === 0) return null;
    const channel = this.time.channelsOf(node).find(({ path }) => path === 'weights');
    const still = node.getWeights().length > 0 ? node.getWeights() : mesh.getWeights();
    return {
      names,
      codes: channel ? this.time.codesOfChannel(channel) : [this.sampled.first],
      weightsAt: (code) =>
        names.map((_, k) => (channel ? this.time.mixed(channel, names.length, code)[k] : (still[k] ?? 0))),
    };
  }

  private dressPrototypes(): Map<string, Node> {
    const { document, instancers } = this.composed;
    const sprayed = this.sampled.shot.riders.filter((_, r) => this.sampled.sprays[r] !== null);
    return new Map(
      sprayed.map(({ id, name, emitter }) => {
        const node = document.createNode('particle');
        if (emitter && !instancers.instantiate(node, emitter.model, true))
          node.setMesh(grainMesh(document, name, emitter));
        return [id, node];
      }),
    );
  }

  /** Every node that is written. */
  private nodesSeen(): Node[] {
    const nodes: Node[] = [];
    const { scene } = this.composed;
    scene.traverse((node) => nodes.push(node));
    for (const prototype of this.prototypes.values()) prototype.traverse((node) => nodes.push(node));
    return nodes;
  }

  private materialsSeen(): Set<Material> {
    const meshes = new Set(this.nodesSeen().map((node) => node.getMesh()));
    const materials = [...meshes].flatMap(
      (mesh) => mesh?.listPrimitives().map((primitive) => primitive.getMaterial()) ?? [],
    );
    return new Set(materials.filter((material) => material !== null));
  }

  /** Meshes that several nodes show are written once, as classes that those inherit. */
  private findShared(): void {
    const seen = new Map<Primitive, number>();
    for (const node of this.nodesSeen())
      for (const primitive of node.getMesh()?.listPrimitives() ?? [])
        seen.set(primitive, (seen.get(primitive) ?? 0) + 1);
    for (const [primitive, count] of seen) {
      if (count < 2) continue;
      const mesh = primitive.listParents().find((parent) => parent.propertyType === 'Mesh');
      const name = this.names.give(`/${SHARED}`, mesh?.getName() || 'mesh');
      this.shared.set(primitive, `/${SHARED}/${name}`);
    }
  }

  private writeShared(): void {
    if (this.shared.size === 0) return;
    this.text.prim('class', '', SHARED, [], () => {
      for (const [primitive, path] of this.shared)
        this.text.prim('class', SCHEMAS[facesOf(primitive).kind], last(path), [], () =>
          writeGeometry(this.text, primitive),
        );
    });
  }
}

type UsdOf = (values: ArrayLike<number>, at: number) => string;

interface UsdSkin {
  readonly node: Node;
  readonly skeleton: UsdSkeleton;
  readonly path: string;
}

const IDENTITY = '( (1, 0, 0, 0), (0, 1, 0, 0), (0, 0, 1, 0), (0, 0, 0, 1) )';

const last = (path: string): string => path.slice(path.lastIndexOf('/') + 1);

/** Whether anything below is drawn by a skeleton. */
function holdsSkeleton(top: Node): boolean {
  let holds = false;
  top.traverse((node) => {
    const shapes = node
      .getMesh()
      ?.listPrimitives()
      .some((primitive) => primitive.listTargets().length > 0);
    if (node.getMesh() && (node.getSkin() || shapes)) holds = true;
  });
  return holds;
}
