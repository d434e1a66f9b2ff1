/** How large a JSON text may be before it is parsed. */
export interface JsonLimits {
  readonly bytes: number;
  /** Values and keys, counted by the commas, colons and brackets outside of strings. */
  readonly values: number;
  /** Objects and lists in each other. */
  readonly depth: number;
  /** Different keys: millions of them take a parser a hundred times as long as one key a million times. */
  readonly keys: number;
}

const [QUOTE, BACKSLASH, COMMA, COLON] = [...'"\\,:'].map((character) => character.charCodeAt(0));
const [OPEN_OBJECT, OPEN_LIST, CLOSE_OBJECT, CLOSE_LIST] = [...'{[}]'].map((one) => one.charCodeAt(0));

const FNV_START = 0x811c9dc5;
const FNV_PRIME = 0x01000193;

/** Weighs a JSON text as it comes in, part by part, without parsing it. */
export class JsonScan {
  private bytes = 0;
  private values = 0;
  private depth = 0;
  /** Hashes (FNV-1a, Fowler, Noll and Vo) of the keys so far, and of the last string. */
  private readonly keys = new Set<number>();
  private hash = 0;
  private inString = false;
  private escaped = false;

  constructor(private readonly limits: JsonLimits) {}

  /** Takes the next part; says what is too much of it, or null. */
  take(part: Uint8Array): string | null {
    const { limits } = this;
    this.bytes += part.length;
    if (this.bytes > limits.bytes)
      return `The JSON has over ${limits.bytes / 2 ** 20} MB; expected at most that.`;
    for (let i = 0; i < part.length; i++) {
      const byte = part[i];
      if (this.inString) {
        if (this.escaped) this.escaped = false;
        else if (byte === BACKSLASH) this.escaped = true;
        else if (byte === QUOTE) this.inString = false;
        this.hash = Math.imul(this.hash ^ byte, FNV_PRIME);
      } else if (byte === QUOTE) {
        this.inString = true;
        this.hash = FNV_START;
      } else if (byte === COMMA) this.values++;
      else if (byte === COLON) {
        this.values++;
        this.keys.add(this.hash);
        if (this.keys.size > limits.keys)
          return `The JSON has over ${limits.keys} different keys; expected at most that.`;
      } else if (byte === OPEN_OBJECT || byte === OPEN_LIST) {
        this.values++;
        if (++this.depth > limits.depth)
          return `The JSON is nested over ${limits.depth} deep; expected at most that.`;
      } else if (byte === CLOSE_OBJECT || byte === CLOSE_LIST) this.depth--;
    }
    if (this.values > limits.values)
      return `The JSON has over ${limits.values / 1e6} million values; expected at most that.`;
    return null;
  }
}
