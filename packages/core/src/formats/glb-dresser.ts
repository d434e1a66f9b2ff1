import type { Animation, Document, Node, Skin } from '@gltf-transform/core';
import { mergeDocuments } from '@gltf-transform/functions';

/**
 * Puts one model under any number of riders: its meshes, materials and clip data are in the file
 * once, its nodes, skins and clips once for each rider.
 */
class Dresser {
  private readonly roots: Node[];
  private readonly skins: Skin[];
  private readonly clips: Animation[];
  private worn = false;

  constructor(
    private readonly target: Document,
    model: Document,
  ) {
    const source = model.getRoot();
    const scene = source.getDefaultScene() ?? source.listScenes()[0];
    const merged = mergeDocuments(target, model);
    const here = <T>(property: unknown) => merged.get(property as never) as T;
    this.roots = scene.listChildren().map((node) => here<Node>(node));
    this.skins = source.listSkins().map((skin) => here<Skin>(skin));
    this.clips = source.listAnimations().map((clip) => here<Animation>(clip));
    source.listScenes().forEach((other) => here<Node>(other).dispose());
  }

  /**
   * Hangs the model under a rider's node.
   *
   * @param changed whether its nodes are changed then, so that it has to be a copy
   */
  dress(rider: Node, changed: boolean): void {
    // The first rider wears the originals, so that one rider costs no copy at all.
    if (!this.worn && !changed) {
      this.worn = true;
      this.roots.forEach((root) => rider.addChild(root));
      return;
    }
    const copies = new Map<Node, Node>();
    this.roots.forEach((root) => rider.addChild(copyNode(this.target, root, copies)));
    this.copySkins(copies);
    this.copyClips(copies);
  }

  /** Takes the originals away where nobody wears them. */
  close(): boolean {
    if (this.worn) return false;
    const nodes: Node[] = [];
    for (const root of this.roots) root.traverse((node) => nodes.push(node));
    for (const one of [...this.clips, ...this.skins, ...nodes]) one.dispose();
    return true;
  }

  private copySkins(copies: ReadonlyMap<Node, Node>): void {
    for (const skin of this.skins) {
      if (!skin.listJoints().every((joint) => copies.has(joint))) continue;
      const copy = this.target
        .createSkin(skin.getName())
        .setInverseBindMatrices(skin.getInverseBindMatrices());
      skin.listJoints().forEach((joint) => copy.addJoint(copies.get(joint) as Node));
      const skeleton = skin.getSkeleton();
      if (skeleton) copy.setSkeleton(copies.get(skeleton) ?? null);
      for (const node of copies.values()) if (node.getSkin() === skin) node.setSkin(copy);
    }
  }

  private copyClips(copies: ReadonlyMap<Node, Node>): void {
    for (const clip of this.clips) {
      const copy = this.target.createAnimation(clip.getName());
      for (const channel of clip.listChannels()) {
        const node = channel.getTargetNode();
        const sampler = channel.getSampler();
        if (!node || !sampler || !copies.has(node)) continue;
        const ownSampler = sampler.clone();
        copy.addSampler(ownSampler);
        copy.addChannel(
          channel
            .clone()
            .setTargetNode(copies.get(node) as Node)
            .setSampler(ownSampler),
        );
      }
    }
  }
}

function copyNode(target: Document, node: Node, copies: Map<Node, Node>): Node {
  const copy = target
    .createNode(node.getName())
    .setTranslation(node.getTranslation())
    .setRotation(node.getRotation())
    .setScale(node.getScale())
    .setWeights(node.getWeights())
    .setMesh(node.getMesh())
    .setCamera(node.getCamera())
    .setSkin(node.getSkin())
    .setExtras(node.getExtras());
  for (const extension of node.listExtensions()) copy.setExtension(extension.extensionName, extension);
  copies.set(node, copy);
  node.listChildren().forEach((child) => copy.addChild(copyNode(target, child, copies)));
  return copy;
}

/** One dresser a model, each made when it is first needed. */
export class Wardrobe {
  private readonly dressers = new Map<string, Dresser>();

  constructor(
    private readonly target: Document,
    /** By the document's model ids. */
    private readonly models: ReadonlyMap<string, Document>,
  ) {}

  /** Hangs a model under a node; false where there is none. See {@link Dresser.dress}. */
  dress(node: Node, id: string | null, changed = false): boolean {
    const model = id === null ? undefined : this.models.get(id);
    if (id === null || model === undefined) return false;
    const dresser = this.dressers.get(id) ?? new Dresser(this.target, model);
    this.dressers.set(id, dresser);
    dresser.dress(node, changed);
    return true;
  }

  /** To be called at the end; true where models were taken away again, whose meshes are then nobody's. */
  close(): boolean {
    return [...this.dressers.values()].filter((dresser) => dresser.close()).length > 0;
  }
}
