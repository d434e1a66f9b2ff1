import type { CheckedModel, GroundMesh, NodeHierarchy } from '@fleet-rail/core';
import {
  groundMeshOf,
  hierarchyOf,
  modelMeshOf,
  readModelDocument,
  rigOf,
  sceneryMeshOf,
} from '@fleet-rail/core/models';
import { expose } from 'comlink';

type Model = Awaited<ReturnType<typeof readModelDocument>>;
const read = new Map<string, Promise<Model>>();

/** A model's file, read once. */
function modelAt(url: string, name: string): Promise<Model> {
  const cached = read.get(url);
  if (cached) return cached;
  const reading = fetch(url).then(async (answer) => {
    if (!answer.ok) throw new Error(`${name} is not there (${answer.status}).`);
    return readModelDocument(new Uint8Array(await answer.arrayBuffer()), name);
  });
  read.set(url, reading);
  // Not kept, so that the next look tries again.
  reading.catch(() => read.delete(url));
  return reading;
}

const api = {
  /** What of a model can move. */
  async hierarchy(url: string, name: string): Promise<NodeHierarchy> {
    return hierarchyOf(await modelAt(url, name));
  },
  /** The triangles of a model or of some of its nodes, as they stand. */
  async ground(url: string, name: string, nodes: readonly string[]): Promise<GroundMesh | null> {
    return groundMeshOf(await modelAt(url, name), nodes);
  },
  /** What of a model can move, what it is made of, and what was found to roll on it: what a shot is checked against. */
  async checked(url: string, name: string): Promise<CheckedModel & { hierarchy: NodeHierarchy }> {
    const model = await modelAt(url, name);
    return { hierarchy: hierarchyOf(model), mesh: modelMeshOf(model), rig: rigOf(model) };
  },
  /** The triangles of all that stands in a model beside the nodes that are the ground. */
  async scenery(url: string, name: string, nodes: readonly string[]): Promise<GroundMesh | null> {
    return sceneryMeshOf(await modelAt(url, name), nodes);
  },
};

export type AssetsWorker = typeof api;

expose(api);
