import type { Animation, AnimationChannel, Document, Node, Skin } from '@gltf-transform/core';
import { mergeDocuments } from '@gltf-transform/functions';
import { worldNodes } from './gltf-scene.js';

/**
 * Puts one model under any number of riders: its meshes, materials and clip data are in the file
 * once, its nodes, skins and clips once for each rider.
 */
class ModelInstancer {
  private readonly roots: Node[];
  private readonly skins: Skin[];
  private readonly clips: Animation[];
  private readonly clipNames: string[];
  private readonly clipChannels: AnimationChannel[][];
  private instances = false;

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
    this.clipNames = this.clips.map((clip, i) => clip.getName() || `Clip ${i + 1}`);
    this.clipChannels = this.clips.map((clip) => clip.listChannels());
    source.listScenes().forEach((other) => here<Node>(other).dispose());
    // Nodes of another scene, or of none, are not instanced.
    const standing = new Set(worldNodes(model).map(({ node }) => node));
    for (const node of source.listNodes()) if (!standing.has(node)) here<Node>(node).dispose();
  }

  /**
   * Hangs the model under a rider's node.
   *
   * @param changed whether its nodes are changed then, so that it has to be a copy
   * @param wearer  whose name is put before those of clips; null for what wears no clips
   */
  instantiate(rider: Node, changed: boolean, wearer: string | null): void {
    // The first rider uses the originals, so that one rider costs no copy at all.
    if (!this.instances && !changed) {
      this.instances = true;
      this.roots.forEach((root) => rider.addChild(root));
      this.clips.forEach((clip, i) => {
        if (wearer === null) clip.dispose();
        else clip.setName(`${wearer} ${this.clipNames[i]}`);
      });
      return;
    }
    const copies = new Map<Node, Node>();
    this.roots.forEach((root) => rider.addChild(copyNode(this.target, root, copies)));
    this.copySkins(copies);
    if (wearer !== null) this.copyClips(copies, wearer);
  }

  /** Removes the originals if no instance uses them. */
  close(): void {
    if (this.instances) return;
    const nodes: Node[] = [];
    for (const root of this.roots) root.traverse((node) => nodes.push(node));
    for (const one of [...this.clips, ...this.skins, ...nodes]) one.dispose();
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

  private copyClips(copies: ReadonlyMap<Node, Node>, wearer: string): void {
    for (const [i, channels] of this.clipChannels.entries()) {
      const copy = this.target.createAnimation(`${wearer} ${this.clipNames[i]}`);
      for (const channel of channels) {
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
export class ModelInstancers {
  private readonly byModel = new Map<string, ModelInstancer>();

  constructor(
    private readonly target: Document,
    /** By the document's model ids. */
    private readonly models: ReadonlyMap<string, Document>,
  ) {}

  /** Hangs a model under a node; false where there is none. See {@link ModelInstancer.instantiate}. */
  instantiate(node: Node, id: string | null, changed = false, wearer: string | null = null): boolean {
    const model = id === null ? undefined : this.models.get(id);
    if (id === null || model === undefined) return false;
    const dresser = this.byModel.get(id) ?? new ModelInstancer(this.target, model);
    this.byModel.set(id, dresser);
    dresser.instantiate(node, changed, wearer);
    return true;
  }

  /** Call at the end: removes originals without an instance. */
  close(): void {
    for (const dresser of this.byModel.values()) dresser.close();
  }
}
