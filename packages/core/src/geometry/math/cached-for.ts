/** Caches one result for each key object. */
export function cachedFor<K extends object, T>(make: (key: K) => T): (key: K) => T {
  const kept = new Map<K, T>();
  return (key) => {
    if (!kept.has(key)) kept.set(key, make(key));
    return kept.get(key) as T;
  };
}
