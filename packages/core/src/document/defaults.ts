/**
 * The defaults of a document class as plain data, nested parts included; fields without a default are
 * left out and have to be given.
 */
export function defaultsOf<T extends object>(Class: new () => T): T {
  return JSON.parse(JSON.stringify(new Class())) as T;
}
