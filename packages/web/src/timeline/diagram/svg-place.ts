/** Position of a pointer in the drawing of its target, pixels from its corner. */
export function svgPlace(event: { clientX: number; clientY: number; currentTarget: SVGElement }): {
  readonly px: number;
  readonly py: number;
} {
  const { currentTarget, clientX, clientY } = event;
  const box = (currentTarget.ownerSVGElement ?? currentTarget).getBoundingClientRect();
  return { px: clientX - box.left, py: clientY - box.top };
}
