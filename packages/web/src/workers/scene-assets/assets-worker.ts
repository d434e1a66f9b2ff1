import type { CheckedModel, GroundMesh, NodeHierarchy } from '@fleet-rail/core';
import { groundMeshOf, hierarchyOf, modelMeshOf, rigOf, staticSetMeshOf } from '@fleet-rail/core/models';
import { expose } from 'comlink';
import { ModelFiles } from './model-files';

const files = new ModelFiles();

const api = {
  /** Movable parts of a model. */
  async hierarchy(url: string, name: string): Promise<NodeHierarchy> {
    return hierarchyOf(await files.at(url, name));
  },
  /** Triangles of a model or of some of its nodes, in the rest pose. */
  async ground(url: string, name: string, nodes: readonly string[]): Promise<GroundMesh | null> {
    return groundMeshOf(await files.at(url, name), nodes);
  },
  /** Movable parts of a model, its meshes and its rig: the inputs of a check. */
  async checked(url: string, name: string): Promise<CheckedModel & { hierarchy: NodeHierarchy }> {
    const model = await files.at(url, name);
    return { hierarchy: hierarchyOf(model), mesh: modelMeshOf(model), rig: rigOf(model) };
  },
  /** Triangles of a model except its ground nodes. */
  async scenery(url: string, name: string, nodes: readonly string[]): Promise<GroundMesh | null> {
    return staticSetMeshOf(await files.at(url, name), nodes);
  },
};

export type AssetsWorker = typeof api;

expose(api);
