/** What the last picture of the stage cost this thread. */
export interface DrawingCost {
  readonly ms: number;
  readonly calls: number;
  readonly triangles: number;
}
