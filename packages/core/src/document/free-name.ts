/** An id like `base`, or `base-2`, `base-3` … where that is taken. */
export function freeId(base: string, taken: readonly { id: string }[]): string {
  const clean =
    base
      .toLowerCase()
      .replace(/[^a-z0-9._-]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 48) || 'item';
  return nextFree(clean, new Set(taken.map(({ id }) => id)), '-');
}

/** A name like `base`, or `base 2`, `base 3` … where one of the others has that. */
export function freeName(base: string, taken: readonly { readonly name: string }[]): string {
  return nextFree(base, new Set(taken.map(({ name }) => name)), ' ');
}

/** A name like `base 3`, numbered on from how many there are. */
export function numberedName(base: string, taken: readonly { readonly name: string }[]): string {
  const names = new Set(taken.map(({ name }) => name));
  for (let n = taken.length + 1; ; n++) if (!names.has(`${base} ${n}`)) return `${base} ${n}`;
}

function nextFree(base: string, taken: ReadonlySet<string>, joint: string): string {
  if (!taken.has(base)) return base;
  for (let n = 2; ; n++) if (!taken.has(`${base}${joint}${n}`)) return `${base}${joint}${n}`;
}
