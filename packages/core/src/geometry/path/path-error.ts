/** A path that has no curve (yet): says in one sentence what it lacks. */
export class PathError extends Error {
  override readonly name = 'PathError';
}
