/** Cost of the stage's last picture in this thread. */
export interface DrawingCost {
  readonly ms: number;
  readonly calls: number;
  readonly triangles: number;
}
