/** Handlers of an element that is dragged: a drag ends when the pointer is let go, and when it is taken away. */
export const dragEnd = (end: () => void) => ({ onPointerUp: end, onPointerCancel: end });
