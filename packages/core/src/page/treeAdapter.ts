import { html, type Token, type TreeAdapter, type TreeAdapterTypeMap } from 'parse5';
import type {
  ChildNode,
  CommentNode,
  DoctypeNode,
  DocumentNode,
  ElementNode,
  FragmentNode,
  Namespace,
  ParentNode,
  TextNode,
} from './nodes.ts';

interface TemplateNode extends ElementNode {
  content?: FragmentNode;
}

export type Map5 = TreeAdapterTypeMap<
  ChildNode | ParentNode,
  ParentNode,
  ChildNode,
  DocumentNode,
  FragmentNode,
  ElementNode,
  CommentNode,
  TextNode,
  TemplateNode,
  DoctypeNode
>;

const namespaces: Record<string, Namespace> = {
  [html.NS.HTML]: 'html',
  [html.NS.SVG]: 'svg',
  [html.NS.MATHML]: 'mathml',
};
const uris = new Map(Object.entries(namespaces).map(([uri, name]) => [name, uri as html.NS]));

/** Chromium's limit: what is deeper becomes a sibling of its parent. */
const deepestElement = 512;

/** parse5's tree interface onto our nodes, for one page. */
export function makeTreeAdapter(): TreeAdapter<Map5> {
  let open = 0;
  return {
    ...treeAdapter,
    onItemPush: () => void open++,
    onItemPop: () => void open--,
    appendChild: (parent, child) => {
      const above = open > deepestElement && child.type === 'element' && 'parent' in parent ? parent.parent : null;
      treeAdapter.appendChild(above ?? parent, child);
    },
  };
}

const nowhere = { startLine: 0, startCol: 0, startOffset: 0, endLine: 0, endCol: 0, endOffset: 0 };

/** Places are kept as numbers, nothing else is stored twice. */
const treeAdapter: TreeAdapter<Map5> = {
  createDocument: () => ({ type: 'document', children: [], mode: 'no-quirks' }),
  createDocumentFragment: () => ({ type: 'fragment', children: [] }),
  createElement: (tag, uri, attrs) => makeElement(tag, namespaces[uri] ?? 'other', attrs),
  createCommentNode: (value) => ({ type: 'comment', value, parent: null, start: -1, end: -1 }),
  createTextNode: (value) => ({ type: 'text', value, parent: null }),
  appendChild: (parent, child) => {
    parent.children.push(child);
    child.parent = parent;
  },
  insertBefore: (parent, child, before) => {
    parent.children.splice(parent.children.indexOf(before), 0, child);
    child.parent = parent;
  },
  setTemplateContent: (template, content) => {
    template.content = content;
  },
  getTemplateContent: (template) => template.content!,
  setDocumentType: (document, name, publicId, systemId) => {
    document.children.push({ type: 'doctype', name, publicId, systemId, parent: document });
  },
  setDocumentMode: (document, mode) => {
    document.mode = mode;
  },
  getDocumentMode: (document) => document.mode as html.DOCUMENT_MODE,
  detachNode: (node) => {
    if (!node.parent) return;
    const at = node.parent.children.indexOf(node);
    if (at >= 0) node.parent.children.splice(at, 1);
    node.parent = null;
  },
  insertText: (parent, text) => {
    const last = parent.children.at(-1);
    if (last?.type === 'text') last.value += text;
    else parent.children.push({ type: 'text', value: text, parent });
  },
  insertTextBefore: (parent, text, before) => {
    const at = parent.children.indexOf(before);
    const previous = parent.children[at - 1];
    if (previous?.type === 'text') previous.value += text;
    else parent.children.splice(at, 0, { type: 'text', value: text, parent });
  },
  adoptAttributes: (element, attrs) => {
    const added = attrs.filter((a) => !element.attributes.some((b) => b.name === a.name));
    if (added.length === 0) return;
    element.attributes.push(...added.map((a) => ({ name: a.name, value: a.value, prefix: a.prefix })));
    Object.assign(element, identityOf(element.attributes));
  },
  getFirstChild: (node) => node.children[0] ?? null,
  getChildNodes: (node) => node.children,
  getParentNode: (node) => ('parent' in node ? node.parent : null),
  getAttrList: (element) => element.attributes,
  getTagName: (element) => element.tag,
  getNamespaceURI: (element) => uris.get(element.namespace) ?? html.NS.HTML,
  getTextNodeContent: (node) => node.value,
  getCommentNodeContent: (node) => node.value,
  getDocumentTypeNodeName: (node) => node.name,
  getDocumentTypeNodePublicId: (node) => node.publicId,
  getDocumentTypeNodeSystemId: (node) => node.systemId,
  isTextNode: (node): node is TextNode => node.type === 'text',
  isCommentNode: (node): node is CommentNode => node.type === 'comment',
  isDocumentTypeNode: (node): node is DoctypeNode => node.type === 'doctype',
  isElementNode: (node): node is ElementNode => node.type === 'element',
  setNodeSourceCodeLocation: (node, location) => {
    if (node.type === 'element') {
      node.start = location?.startOffset ?? -1;
      node.startTagEnd = location?.endOffset ?? -1;
      node.end = location?.endOffset ?? -1;
      node.attributeSpans = location && 'attrs' in location ? location.attrs : undefined;
    } else if (node.type === 'comment') {
      node.start = location?.startOffset ?? -1;
      node.end = location?.endOffset ?? -1;
    }
  },
  // at the end of a page the parser asks whether `html` and `body` have an end tag
  getNodeSourceCodeLocation: (node) =>
    node.type === 'element' && node.start >= 0
      ? {
          ...nowhere,
          startOffset: node.start,
          endOffset: node.end,
          ...(node.endTagStart >= 0 ? { endTag: nowhere } : {}),
        }
      : undefined,
  // our parser sets ends itself
  updateNodeSourceCodeLocation: () => undefined,
};

function makeElement(tag: string, namespace: Namespace, attrs: readonly Token.Attribute[]): ElementNode {
  return {
    type: 'element',
    tag,
    namespace,
    attributes: attrs as unknown as ElementNode['attributes'],
    ...identityOf(attrs),
    children: [],
    parent: null,
    index: -1,
    siblingIndex: 0,
    siblings: [],
    start: -1,
    startTagEnd: -1,
    endTagStart: -1,
    end: -1,
    attributeSpans: undefined,
  };
}

const noClasses: readonly string[] = [];

function identityOf(attrs: readonly { readonly name: string; readonly value: string }[]): {
  id: string | undefined;
  classes: readonly string[];
} {
  let id: string | undefined;
  let classes = noClasses;
  for (const { name, value } of attrs) {
    if (name === 'id' && value !== '') id = value;
    // class names are parted by ASCII white space only
    else if (name === 'class') classes = value.split(/[\t\n\f\r ]+/).filter((c) => c !== '');
  }
  return { id, classes };
}
