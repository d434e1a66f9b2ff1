/** Triangles as plain data: x, y, z of each vertex in turn, three vertices a triangle. */
export interface TriangleMesh {
  readonly positions: Float32Array | Float64Array;
  readonly indices: Uint32Array;
}
