import type { AnimationChannel, Document, Node, Primitive } from '@gltf-transform/core';
import { vec3 } from 'gl-matrix';
import { LIMITS } from '../document/limits.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { chainEdges } from '../geometry/reshape/edge-runs.js';
import { FormatError } from './format-error.js';
import { everyNode, numbersOf, type WorldNode } from './gltf-scene.js';
import {
  addMotion,
  baseName,
  pathOfPositions,
  type ImportOptions,
  type ImportedLens,
  type Imported,
  type Progress,
} from './imported.js';
import { readModelDocument } from './model-read.js';

const LINES = 1;
const LINE_LOOP = 2;
const LINE_STRIP = 3;
/** The most motions taken from one file. */
const MOST_MOTIONS = 50;

/**
 * Paths from a glTF file: its line primitives at their positions in the scene, and the motions of its travelling
 * nodes, each as a path with keys.
 *
 * @throws FormatError where the file cannot be read or holds neither
 */
export async function readGltfPaths(
  bytes: Uint8Array,
  file: string,
  options: ImportOptions,
  onProgress?: Progress,
): Promise<Imported> {
  const document = await readModelDocument(bytes, file);
  const into: Imported = { paths: [], rides: [], notes: [] };
  const nodes = everyNode(document);
  nodes.forEach((one, i) => {
    for (const primitive of one.node.getMesh()?.listPrimitives() ?? [])
      addLines(one, primitive, file, options, into);
    onProgress?.((0.5 * i) / nodes.length);
  });
  addMotionsOf(document, nodes, file, options, into);
  if (into.paths.length === 0) {
    throw new FormatError(
      file,
      'holds no line primitives and no node that travels; expected one of them. To use the edges of a mesh, pick them on the stage.',
    );
  }
  return into;
}

function addLines(
  { node, matrix }: WorldNode,
  primitive: Primitive,
  file: string,
  options: ImportOptions,
  into: Imported,
): void {
  const mode = primitive.getMode();
  const position = primitive.getAttribute('POSITION');
  if (![LINES, LINE_LOOP, LINE_STRIP].includes(mode) || !position) return;
  const list = numbersOf(position);
  const places = Array.from({ length: position.getCount() }, (_, i) =>
    scaled(moved(matrix, [list[3 * i], list[3 * i + 1], list[3 * i + 2]]), options.scale),
  );
  const indices = primitive.getIndices()?.getArray() ?? Uint32Array.from(places.keys());
  const runs =
    mode === LINES
      ? chainEdges(
          Array.from(
            { length: indices.length >> 1 },
            (_, i) => [indices[2 * i], indices[2 * i + 1]] as const,
          ),
        )
      : [{ vertices: [...indices], closed: mode === LINE_LOOP }];
  const name = node.getName() || baseName(file);
  runs.forEach((run, i) => {
    const own = runs.length > 1 ? `${name} ${i + 1}` : name;
    const how = { basis: 'polyline', closed: run.closed, tolerance: options.tolerance } as const;
    into.paths.push(
      pathOfPositions(
        file,
        own,
        run.vertices.map((vertex) => places[vertex]),
        how,
        into,
      ),
    );
  });
}

const scaled = (place: Vec3, scale: number): Vec3 => place.map((value) => value * scale) as Vec3;

const moved = (matrix: Float64Array, place: Vec3): Vec3 =>
  vec3.transformMat4([0, 0, 0], place, matrix) as Vec3;

function addMotionsOf(
  document: Document,
  nodes: readonly WorldNode[],
  file: string,
  options: ImportOptions,
  into: Imported,
): void {
  const above = new Map(nodes.map(({ node, parent }) => [node, nodes[parent]?.matrix]));
  const channels = travelling(document);
  if (channels.length > MOST_MOTIONS)
    into.notes.push(`The first ${MOST_MOTIONS} of ${channels.length} motions were taken.`);
  for (const channel of channels.slice(0, MOST_MOTIONS)) {
    const node = channel.getTargetNode() as Node;
    refuseLong(channel, file, options.fps);
    const { frames, places } = sampleChannel(channel, options.fps);
    const parent = above.get(node);
    const world = places.map((place) => scaled(parent ? moved(parent, place) : place, options.scale));
    addMotion(
      file,
      node.getName() || baseName(file),
      frames.map((frame) => frame + options.firstFrame),
      world,
      options,
      into,
      lensOf(node),
    );
  }
}

/** The camera that a node carries, as a focal length before a picture 36 mm wide. */
function lensOf(node: Node): ImportedLens | null {
  const camera =
    node.getCamera() ??
    node
      .listChildren()
      .find((child) => child.getCamera())
      ?.getCamera();
  if (!camera || camera.getType() !== 'perspective') return null;
  const aspect = camera.getAspectRatio() || 16 / 9;
  const focal = SENSOR / aspect / 2 / Math.tan(camera.getYFov() / 2);
  return Number.isFinite(focal) && focal > 0 ? { focal, sensor: SENSOR, aspect } : null;
}

/** Width of the picture for which focal lengths are usually given, millimetres. */
const SENSOR = 36;

/**
 * Channels that take something from place to place: of nodes that hang on each other only the topmost, which takes the others along, and no
 * bones of a skin.
 */
function travelling(document: Document): AnimationChannel[] {
  const root = document.getRoot();
  const bones = new Set(root.listSkins().flatMap((skin) => skin.listJoints()));
  const channels = root
    .listAnimations()
    .flatMap((animation) => animation.listChannels())
    .filter((channel) => channel.getTargetPath() === 'translation' && isTravel(channel));
  const moved = new Set(channels.map((channel) => channel.getTargetNode()));
  const isTop = (node: Node): boolean => {
    for (let above = node.getParentNode(); above; above = above.getParentNode())
      if (moved.has(above)) return false;
    return true;
  };
  return channels.filter((channel) => {
    const node = channel.getTargetNode();
    return (
      node !== null &&
      isTop(node) &&
      (!bones.has(node) || !channels.some((one) => !bones.has(one.getTargetNode() as Node)))
    );
  });
}

/** Whether a channel has a node that is ever elsewhere than at its first key. */
function isTravel(channel: AnimationChannel): boolean {
  const values = channel.getSampler()?.getOutput()?.getArray();
  if (!channel.getTargetNode() || !values) return false;
  const width = channel.getSampler()?.getInterpolation() === 'CUBICSPLINE' ? 9 : 3;
  const from = width === 9 ? 3 : 0;
  for (let i = from; i + 2 < values.length; i += width)
    for (let k = 0; k < 3; k++) if (Math.abs(values[i + k] - values[from + k]) > 1e-4) return true;
  return false;
}

/** Refuses a motion that lasts longer than any shot: there would be no end to its frames. */
function refuseLong(channel: AnimationChannel, file: string, fps: number): void {
  const times = channel.getSampler()?.getInput()?.getArray() ?? [];
  const frames = (times[times.length - 1] - times[0]) * fps;
  if (times.length === 0 || (frames >= 0 && frames <= LIMITS.frames && Math.abs(times[0] * fps) <= 1e9))
    return;
  throw new FormatError(
    file,
    `has a motion from ${times[0]} to ${times[times.length - 1]} s; expected at most ${LIMITS.frames} frames.`,
  );
}

/** A translation channel at whole frames from its first key to its last, and at the last key itself. */
function sampleChannel(channel: AnimationChannel, fps: number): { frames: number[]; places: Vec3[] } {
  const sampler = channel.getSampler();
  const times = sampler?.getInput()?.getArray() ?? new Float32Array();
  const values = sampler?.getOutput()?.getArray() ?? new Float32Array();
  const kind = sampler?.getInterpolation() ?? 'LINEAR';
  const stride = kind === 'CUBICSPLINE' ? 9 : 3;
  const value = (key: number, part: number): Vec3 => {
    const at = key * stride + part;
    return [values[at], values[at + 1], values[at + 2]];
  };
  const own = stride === 9 ? 3 : 0;
  const last = times.length - 1;
  const frames: number[] = [];
  const places: Vec3[] = [];
  let key = 0;
  // Keys are single-precision: a frame a hair before a key is meant to be on it.
  for (let frame = Math.ceil(times[0] * fps - 1e-3); frame <= times[last] * fps + 1e-3; frame++) {
    const time = frame / fps;
    while (key < last - 1 && times[key + 1] <= time) key++;
    const next = Math.min(last, key + 1);
    const gap = times[next] - times[key];
    const t = gap > 0 ? Math.min(1, Math.max(0, (time - times[key]) / gap)) : 0;
    const [a, b] = [value(key, own), value(next, own)];
    frames.push(frame);
    if (kind === 'STEP') places.push(t < 1 ? a : b);
    else if (kind === 'LINEAR') places.push(a.map((from, k) => from + t * (b[k] - from)) as Vec3);
    else places.push(hermite(a, value(key, 6), value(next, 0), b, t, gap));
  }
  return { frames, places };
}

/** glTF 2.0, appendix C: the cubic spline between two keys. */
function hermite(a: Vec3, out: Vec3, into: Vec3, b: Vec3, t: number, gap: number): Vec3 {
  const [t2, t3] = [t * t, t * t * t];
  return a.map(
    (from, k) =>
      (2 * t3 - 3 * t2 + 1) * from +
      gap * (t3 - 2 * t2 + t) * out[k] +
      (3 * t2 - 2 * t3) * b[k] +
      gap * (t3 - t2) * into[k],
  ) as Vec3;
}
