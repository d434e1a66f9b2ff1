import type { Element, Node } from '@xmldom/xmldom';
import { compile, type Options } from 'css-select';
import type { CssNode, Rule } from 'css-tree';
import generate from 'css-tree/generator';
import parse from 'css-tree/parser';

/** Parts of an element's style that say where and whether it is drawn. */
const PROPERTIES = new Set([
  'display',
  'visibility',
  'transform',
  'transform-origin',
  'transform-box',
  'translate',
  'rotate',
  'scale',
  'font-size',
  'stroke',
  'stroke-width',
  'fill',
  'd',
  'x',
  'y',
  'width',
  'height',
  'cx',
  'cy',
  'r',
  'rx',
  'ry',
]);

/** Properties that are also presentation attributes; `transform` has its own grammar as an attribute. */
const PRESENTED = new Set(
  [...PROPERTIES].filter(
    (name) => name !== 'transform' && name !== 'translate' && name !== 'rotate' && name !== 'scale',
  ),
);

interface StyleRule {
  readonly matches: (element: Node) => boolean;
  readonly weight: number;
  readonly declared: readonly [string, string, boolean][];
}

/** The style sheets of a drawing: what a browser would make of its elements' properties (CSS Cascading 4, 6). */
export class SvgStyles {
  private readonly rules: StyleRule[] = [];
  private readonly cascaded = new WeakMap<Element, Map<string, { value: string; strong: boolean }>>();

  /** @param sheets the texts of its `<style>` elements, in order */
  constructor(sheets: readonly string[]) {
    for (const sheet of sheets) {
      const tree = parse(sheet, { parseValue: false, parseCustomProperty: false });
      this.addRules(tree);
    }
    // Of equal weight the later one wins, which the order of the list says.
    this.rules.sort((a, b) => a.weight - b.weight);
  }

  /** A property's value that is set on an element itself; null where none is. */
  own(element: Element, name: string): string | null {
    const known = this.cascaded.get(element) ?? this.cascade(element);
    this.cascaded.set(element, known);
    return known.get(name)?.value ?? (PRESENTED.has(name) ? attribute(element, name) : null);
  }

  /** All that rules and its own style set on an element: a dozen properties are asked of each. */
  private cascade(element: Element): Map<string, { value: string; strong: boolean }> {
    const found = new Map<string, { value: string; strong: boolean }>();
    const set = (declared: readonly [string, string, boolean][]) => {
      for (const [name, value, strong] of declared)
        if (strong || !found.get(name)?.strong) found.set(name, { value, strong });
    };
    for (const { matches, declared } of this.rules) if (matches(element)) set(declared);
    const style = element.getAttribute('style');
    if (style) set(declarationsOf(style));
    return found;
  }

  private addRules(tree: CssNode): void {
    if (tree.type !== 'StyleSheet') return;
    tree.children.forEach((node) => {
      if (node.type === 'Rule') this.addRule(node);
      // Rules for screens apply; of other media nothing is known.
      else if (node.type === 'Atrule' && node.name === 'media' && node.block)
        if (!node.prelude || /^\s*(all|screen)\s*$/i.test(generate(node.prelude)))
          node.block.children.forEach((inner) => {
            if (inner.type === 'Rule') this.addRule(inner);
          });
    });
  }

  private addRule({ prelude, block }: Rule): void {
    const declared = declarationsIn(block).filter(([name]) => PROPERTIES.has(name));
    if (declared.length === 0 || prelude.type !== 'SelectorList') return;
    prelude.children.forEach((selector) => {
      try {
        const matches = compile<Node, Element>(generate(selector), OPTIONS);
        this.rules.push({ matches, weight: weightOf(selector), declared });
      } catch {
        // A browser passes over rules it does not know too.
      }
    });
  }
}

const styles = new Map<string, [string, string, boolean][]>();

function declarationsOf(text: string): [string, string, boolean][] {
  const known = styles.get(text);
  if (known) return known;
  const found = declarationsIn(parse(text, { context: 'declarationList', parseValue: false }));
  // Drawings repeat few styles many times; those of other drawings go again.
  if (styles.size > 500) styles.clear();
  styles.set(text, found);
  return found;
}

function declarationsIn(block: CssNode): [string, string, boolean][] {
  const found: [string, string, boolean][] = [];
  if (block.type !== 'Block' && block.type !== 'DeclarationList') return found;
  block.children.forEach((node) => {
    if (node.type === 'Declaration')
      found.push([node.property.toLowerCase(), generate(node.value).trim(), node.important !== false]);
  });
  return found;
}

/** Ids, then classes and attributes, then names (Selectors 4, 17). */
function weightOf(selector: CssNode): number {
  let weight = 0;
  if (selector.type !== 'Selector') return 0;
  selector.children.forEach((part) => {
    if (part.type === 'IdSelector') weight += 1e6;
    else if (['ClassSelector', 'AttributeSelector', 'PseudoClassSelector'].includes(part.type)) weight += 1e3;
    else if (part.type === 'TypeSelector' && part.name !== '*') weight += 1;
  });
  return weight;
}

const attribute = (element: Element, name: string): string | null => {
  const value = element.getAttribute(name);
  return value === null || value.trim() === '' ? null : value.trim();
};

const isElement = (node: Node): node is Element => node.nodeType === 1;
const childrenOf = (node: Node): Node[] => {
  const children: Node[] = [];
  for (let child = node.firstChild; child; child = child.nextSibling) children.push(child);
  return children;
};

const OPTIONS: Options<Node, Element> = {
  xmlMode: true,
  adapter: {
    isTag: isElement,
    getAttributeValue: (element, name) => element.getAttribute(name) ?? undefined,
    getChildren: childrenOf,
    getName: (element) => element.localName ?? element.nodeName,
    getParent: (element) => element.parentNode,
    getSiblings: (node) => (node.parentNode ? childrenOf(node.parentNode) : [node]),
    getText: (node) => node.textContent ?? '',
    hasAttrib: (element, name) => element.hasAttribute(name),
    removeSubsets: (nodes) => nodes,
  },
};
