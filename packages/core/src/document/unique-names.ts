/**
 * Names of which no two are alike: the first of a name keeps it, those after it become `name 2`, `name 3` …, passing over what
 * another is called already.
 *
 * @param unnamed what those without a name are called
 */
export function uniqueNames(names: readonly string[], unnamed: (index: number) => string): string[] {
  const given = new Set(names);
  const taken = new Set<string>();
  const next = new Map<string, number>();
  return names.map((name, i) => {
    const base = name === '' ? unnamed(i) : name;
    let own = base;
    // A name that is made up here must not be one that is given further on.
    if (taken.has(base) || (name === '' && given.has(base))) {
      let count = next.get(base) ?? 2;
      while (taken.has(`${base} ${count}`) || given.has(`${base} ${count}`)) count++;
      next.set(base, count + 1);
      own = `${base} ${count}`;
    }
    taken.add(own);
    return own;
  });
}
