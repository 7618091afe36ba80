import type { DocumentNode, ElementNode, ParentNode } from '../page/nodes.ts';
import type { PageTree } from '../page/parsePage.ts';

/** One element of a tree drawn in lines, as `buildTree` takes it. */
export interface DrawnElement {
  readonly tag: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly depth: number;
}

/** A page tree made without a parser, for published cases that draw theirs. */
export function buildTree(drawn: readonly DrawnElement[]): PageTree {
  const document: DocumentNode = { type: 'document', children: [], mode: 'no-quirks' };
  const elements: ElementNode[] = [];
  const open: ParentNode[] = [document];
  for (const { tag, attributes, depth } of drawn) {
    open.length = depth + 1;
    const parent = open[depth]!;
    const element: ElementNode = {
      type: 'element',
      tag,
      namespace: 'html',
      attributes: Object.entries(attributes).map(([name, value]) => ({ name, value, prefix: undefined })),
      id: attributes['id'],
      classes: attributes['class']?.split(' ') ?? [],
      children: [],
      parent,
      index: elements.length,
      siblingIndex: parent.children.length,
      siblings: parent.children as ElementNode[],
      start: -1,
      startTagEnd: -1,
      endTagStart: -1,
      end: -1,
      attributeSpans: undefined,
    };
    parent.children.push(element);
    elements.push(element);
    open.push(element);
  }
  return { text: '', document, mode: 'no-quirks', elements, comments: [] };
}
