/** A parser of the text form of USD layers, written from its grammar for tests alone. */

/** Numbers, texts, paths and lists of such. */
export type UsdaValue = number | string | boolean | null | UsdaValue[] | { [name: string]: UsdaValue };

export interface UsdaProperty {
  readonly type: string;
  readonly metadata: Record<string, UsdaValue>;
  value?: UsdaValue;
  samples?: [number, UsdaValue][];
  connect?: string;
}

export interface UsdaPrim {
  readonly kind: string;
  readonly type: string;
  readonly name: string;
  readonly path: string;
  readonly metadata: Record<string, UsdaValue>;
  readonly properties: Map<string, UsdaProperty>;
  readonly children: UsdaPrim[];
}

const TOKEN =
  /\s+|#[^\n]*|"(?:[^"\\\n]|\\.)*"|@[^@\n]*@|<[^>\n]*>|-?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?|[A-Za-z_][\w:.]*(?:\[\])?|[()[\]{}=,;:]/gy;

class Reader {
  private readonly tokens: string[] = [];
  private at = 0;

  constructor(text: string) {
    TOKEN.lastIndex = 0;
    while (TOKEN.lastIndex < text.length) {
      const from = TOKEN.lastIndex;
      const found = TOKEN.exec(text);
      if (found === null) throw new Error(`no token at ${from}: ${text.slice(from, from + 40)}`);
      if (!/^[\s#]/.test(found[0])) this.tokens.push(found[0]);
    }
  }

  peek = (): string => this.tokens[this.at] ?? '';
  next = (): string => this.tokens[this.at++] ?? '';
  take(wanted: string): boolean {
    if (this.peek() !== wanted) return false;
    this.at++;
    return true;
  }
  expect(wanted: string): void {
    if (!this.take(wanted)) throw new Error(`found ${this.peek()} (${this.at}), expected ${wanted}`);
  }

  metadata(): Record<string, UsdaValue> {
    const all: Record<string, UsdaValue> = {};
    if (!this.take('(')) return all;
    while (!this.take(')')) {
      if (this.take(';')) continue;
      let name = this.next();
      if (['prepend', 'append', 'delete', 'add'].includes(name)) name = this.next();
      this.expect('=');
      all[name] = this.value();
    }
    return all;
  }

  value(): UsdaValue {
    const token = this.next();
    if (token === '(' || token === '[') {
      const close = token === '(' ? ')' : ']';
      const list: UsdaValue[] = [];
      while (!this.take(close)) {
        list.push(this.value());
        if (!this.take(',') && this.peek() !== close)
          throw new Error(`found ${this.peek()}, expected a comma`);
      }
      return list;
    }
    if (token === '{') {
      const all: Record<string, UsdaValue> = {};
      while (!this.take('}')) {
        if (this.take(';')) continue;
        this.next();
        const name = this.next();
        this.expect('=');
        all[name] = this.value();
      }
      return all;
    }
    if (token.startsWith('"')) return JSON.parse(token) as string;
    if (token.startsWith('<') || token.startsWith('@')) return token.slice(1, -1);
    if (token === 'None') return null;
    const number = Number(token);
    if (Number.isNaN(number)) throw new Error(`found ${token}, expected a value`);
    return number;
  }

  prim(parent: string): UsdaPrim {
    const kind = this.next();
    const type = this.peek().startsWith('"') ? '' : this.next();
    const name = JSON.parse(this.next()) as string;
    if (!/^[A-Za-z_]\w*$/.test(name)) throw new Error(`no name for a prim: ${name}`);
    const path = `${parent}/${name}`;
    const metadata = this.metadata();
    const properties = new Map<string, UsdaProperty>();
    const children: UsdaPrim[] = [];
    this.expect('{');
    while (!this.take('}')) {
      if (['def', 'class', 'over'].includes(this.peek())) {
        const child = this.prim(path);
        if (children.some((other) => other.name === child.name)) throw new Error(`twice: ${child.path}`);
        children.push(child);
      } else this.property(properties);
    }
    return { kind, type, name, path, metadata, properties, children };
  }

  private property(properties: Map<string, UsdaProperty>): void {
    let type = this.next();
    while (['uniform', 'custom', 'prepend'].includes(type)) type = this.next();
    const [name, what] = this.next().split(/\.(?=timeSamples$|connect$)/);
    const known = properties.get(name) ?? { type, metadata: {} };
    properties.set(name, known);
    if (this.take('=')) {
      if (what === 'timeSamples') {
        known.samples = [];
        this.expect('{');
        while (!this.take('}')) {
          const code = Number(this.next());
          this.expect(':');
          known.samples.push([code, this.value()]);
          this.take(',');
        }
      } else if (what === 'connect') known.connect = this.value() as string;
      else known.value = this.value();
    }
    Object.assign(known.metadata, this.metadata());
  }
}

/** A layer with its prims. */
export function parseUsda(text: string): { metadata: Record<string, UsdaValue>; prims: UsdaPrim[] } {
  if (!text.startsWith('#usda 1.0\n')) throw new Error('no head');
  const reader = new Reader(text);
  const metadata = reader.metadata();
  const prims: UsdaPrim[] = [];
  while (reader.peek() !== '') prims.push(reader.prim(''));
  return { metadata, prims };
}

/** All prims, by path. */
export function primsByPath(prims: readonly UsdaPrim[]): Map<string, UsdaPrim> {
  return new Map(prims.flatMap((prim) => [[prim.path, prim] as const, ...primsByPath(prim.children)]));
}
