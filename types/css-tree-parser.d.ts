declare module 'css-tree/parser' {
  import type { CssNode, ParseOptions } from 'css-tree';
  /** Parses style rules; what cannot be read is passed over. */
  export default function parse(text: string, options?: ParseOptions): CssNode;
}
declare module 'css-tree/generator' {
  import type { CssNode } from 'css-tree';
  export default function generate(node: CssNode): string;
}
