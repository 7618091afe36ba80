/** The three namespaces that matter to selectors. */
export type Namespace = 'html' | 'svg' | 'mathml' | 'other';

export interface TextNode {
  readonly type: 'text';
  value: string;
  parent: ParentNode | null;
}

export interface CommentNode {
  readonly type: 'comment';
  readonly value: string;
  parent: ParentNode | null;
  start: number;
  end: number;
}

export interface Attribute {
  /** Local name: lower case in HTML, the standard's own case in SVG and MathML. */
  readonly name: string;
  readonly value: string;
  readonly prefix: string | undefined;
}

/** An element of the tree the HTML standard builds, with where it stands in the page's text (-1 for implied tags). */
export interface ElementNode {
  readonly type: 'element';
  readonly tag: string;
  readonly namespace: Namespace;
  readonly attributes: Attribute[];
  readonly id: string | undefined;
  readonly classes: readonly string[];
  children: ChildNode[];
  parent: ParentNode | null;
  /** Number in document order, from 0. */
  index: number;
  /** Place among element siblings, from 0, and their number. */
  siblingIndex: number;
  siblings: readonly ElementNode[];
  start: number;
  startTagEnd: number;
  endTagStart: number;
  end: number;
  /** The page's own policy forbids its style attribute: it declares nothing. */
  styleIgnored?: boolean;
  /** Spans of the attributes in the start tag, by name as written in lower case. */
  attributeSpans: Readonly<Record<string, { readonly startOffset: number; readonly endOffset: number }>> | undefined;
}

export interface DocumentNode {
  readonly type: 'document';
  children: ChildNode[];
  mode: 'no-quirks' | 'quirks' | 'limited-quirks';
}

/** The contents of a `template`, which are no part of the document. */
export interface FragmentNode {
  readonly type: 'fragment';
  children: ChildNode[];
}

export type ParentNode = ElementNode | DocumentNode | FragmentNode;
export interface DoctypeNode {
  readonly type: 'doctype';
  readonly name: string;
  readonly publicId: string;
  readonly systemId: string;
  parent: ParentNode | null;
}
export type ChildNode = ElementNode | TextNode | CommentNode | DoctypeNode;

export function attributeOf(element: ElementNode, name: string): string | undefined {
  for (const attribute of element.attributes) if (attribute.name === name) return attribute.value;
  return undefined;
}

export type AttributeSpans = NonNullable<ElementNode['attributeSpans']>;

/** Where some of an element's attributes are written, for what outlives the page's tree. */
export function spansOf({ attributeSpans }: ElementNode, names: readonly string[]): AttributeSpans {
  const out: Record<string, { startOffset: number; endOffset: number }> = {};
  for (const name of names) {
    const span = attributeSpans?.[name];
    if (span) out[name] = { startOffset: span.startOffset, endOffset: span.endOffset };
  }
  return out;
}
