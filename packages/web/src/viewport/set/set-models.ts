import * as THREE from 'three';
import { sentenceOf } from '../../api/request';
import type { ModelLibrary } from '../figures/model-library';

/** The meshes of models of which many are drawn, each model fetched once. */
export class SetModels {
  private readonly meshes = new Map<string, readonly THREE.Mesh[]>();
  private readonly coming = new Map<string, Promise<void>>();

  /**
   * @param redraw called when a model has come
   * @param tell   takes what went wrong, in words
   */
  constructor(
    private readonly models: ModelLibrary,
    private readonly redraw: () => void,
    private readonly tell: (problem: string) => void,
  ) {}

  /** A model's meshes, with their places in it as world matrices; null until it has come. It is asked for then. */
  of(asset: string): readonly THREE.Mesh[] | null {
    if (!this.coming.has(asset)) this.coming.set(asset, this.load(asset));
    return this.meshes.get(asset) ?? null;
  }

  /** How many have come. */
  get count(): number {
    return this.meshes.size;
  }

  /** Settles when all that were asked for have come, or cannot. */
  async whole(): Promise<void> {
    await Promise.all(this.coming.values());
  }

  private async load(asset: string): Promise<void> {
    try {
      const model = await this.models.copyOf(asset);
      model.updateMatrixWorld(true);
      const meshes: THREE.Mesh[] = [];
      model.traverse((part) => part instanceof THREE.Mesh && meshes.push(part));
      this.meshes.set(asset, meshes);
      this.redraw();
    } catch (error) {
      this.tell(`A model that is laid or sprayed could not be shown: ${sentenceOf(error)}`);
    }
  }
}
