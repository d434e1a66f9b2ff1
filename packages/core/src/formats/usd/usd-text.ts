/** One value of an attribute, as text. */
export type UsdValue = string;

/**
 * Writes the text form of a USD layer, prim by prim: two columns an indent, one statement a line.
 * Grammar: the layer format of OpenUSD, version 1.0 ("usda").
 */
export class UsdText {
  private readonly lines: string[] = [];
  private depth = 0;

  /**
   * A prim with what is in it.
   *
   * @param kind     `def`, or `class` for one that only others take over
   * @param type     a schema, or nothing for what inherits its own
   * @param metadata such as `displayName = "…"`, a line each
   */
  prim(
    kind: 'def' | 'class',
    type: string,
    name: string,
    metadata: readonly string[],
    inside: () => void,
  ): void {
    const head = [kind, type, `"${name}"`].filter((word) => word !== '').join(' ');
    if (metadata.length === 0) this.line(head);
    else {
      this.line(`${head} (`);
      this.inner(() => metadata.forEach((one) => this.line(one)));
      this.line(')');
    }
    this.line('{');
    this.inner(inside);
    this.line('}');
    this.line('');
  }

  /** @param metadata such as `interpolation = "vertex"` */
  attribute(declared: string, value: UsdValue, metadata: readonly string[] = []): void {
    this.line(`${declared} = ${value}${metadata.length > 0 ? ` (${metadata.join('; ')})` : ''}`);
  }

  /** A value over time: one at each time code. */
  samples(
    declared: string,
    codes: readonly number[],
    value: (index: number) => UsdValue,
    metadata: readonly string[] = [],
  ): void {
    if (metadata.length > 0) this.line(`${declared} (${metadata.join('; ')})`);
    this.line(`${declared.replace(/^(uniform|custom) /, '')}.timeSamples = {`);
    this.inner(() => codes.forEach((code, i) => this.line(`${numberText(code)}: ${value(i)},`)));
    this.line('}');
  }

  rel(name: string, ...targets: string[]): void {
    const paths = targets.map((target) => `<${target}>`);
    this.line(`rel ${name} = ${paths.length === 1 ? paths[0] : `[${paths.join(', ')}]`}`);
  }

  line(text: string): void {
    this.lines.push(text === '' ? '' : '    '.repeat(this.depth) + text);
  }

  /** All of it, in parts that are not too long for a text each. */
  *parts(): Generator<string, void, undefined> {
    const most = 20_000;
    for (let i = 0; i < this.lines.length; i += most) yield `${this.lines.slice(i, i + most).join('\n')}\n`;
  }

  private inner(inside: () => void): void {
    this.depth++;
    inside();
    this.depth--;
  }
}

/** The shortest text that reads back as the same number. */
export const numberText = (value: number): string => (Object.is(value, -0) ? '0' : String(value));

/** The shortest text that reads back as the same number of single precision. */
export function singleText(value: number): string {
  const single = Math.fround(value);
  for (let digits = 6; digits < 9; digits++) {
    const text = Number(single.toPrecision(digits));
    if (Math.fround(text) === single) return numberText(text);
  }
  return numberText(Number(single.toPrecision(9)));
}

/** Numbers from `at` on as one tuple: `(1, 2, 3)`. */
export function tuple(values: ArrayLike<number>, at: number, width: number): UsdValue {
  let text = `(${numberText(values[at])}`;
  for (let k = 1; k < width; k++) text += `, ${numberText(values[at + k])}`;
  return `${text})`;
}

/** A rotation, with its real part first. */
export function quatText(values: ArrayLike<number>, at: number): UsdValue {
  return `(${[3, 0, 1, 2].map((k) => numberText(values[at + k])).join(', ')})`;
}

/** A matrix of sixteen numbers column by column, whose rows act on row vectors here: the same numbers in turn. */
export function matrixText(m: ArrayLike<number>, at = 0): UsdValue {
  return `( ${[0, 4, 8, 12].map((row) => tuple(m, at + row, 4)).join(', ')} )`;
}

/** A list of values of `width` numbers of single precision each. */
export function singles(values: ArrayLike<number>, width: number): UsdValue {
  const entries: string[] = [];
  for (let i = 0; i + width <= values.length; i += width) {
    let text = singleText(values[i]);
    for (let k = 1; k < width; k++) text += `, ${singleText(values[i + k])}`;
    entries.push(width === 1 ? text : `(${text})`);
  }
  return `[${entries.join(', ')}]`;
}

/** A list of whole numbers. */
export const wholes = (values: ArrayLike<number>): UsdValue => `[${Array.from(values).join(', ')}]`;

/** A text in quotes. */
export function quoted(text: string): UsdValue {
  return JSON.stringify(text).replaceAll(/\\u([0-9a-f]{4})/gi, (_, code: string) =>
    // Control characters have no form of their own here.
    parseInt(code, 16) < 32 ? ' ' : String.fromCharCode(parseInt(code, 16)),
  );
}

/** Names as prims may have them, each once among those that hang on the same. */
export class PrimNames {
  private readonly taken = new Map<string, Set<string>>();

  /** A name like the wanted one for something that hangs on the prim at `parent`. */
  give(parent: string, wanted: string): string {
    const among = this.taken.get(parent) ?? new Set<string>();
    this.taken.set(parent, among);
    const base = identifier(wanted);
    let own = base;
    for (let n = 2; among.has(own); n++) own = `${base}_${n}`;
    among.add(own);
    return own;
  }
}

/** Letters, figures and underscores, no figure first: what every reader takes. */
export function identifier(text: string): string {
  const plain = text
    .normalize('NFKD')
    .replaceAll(/\p{M}/gu, '')
    .replaceAll(/[^A-Za-z0-9_]+/g, '_')
    .replaceAll(/^_+|_+$/g, '');
  return /^[A-Za-z]/.test(plain) ? plain : `_${plain}`;
}
