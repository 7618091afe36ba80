/**
 * A page may name an element so that it hides what its document or form has of itself (`<img name=body>`, `<form><input
 * name=parentElement>`): what is asked of pages in frames is asked by the prototypes, which nobody hides.
 *
 * HTML Standard, "DOM tree accessors" (named properties of documents) and "The form element".
 */
const read =
  <Value>(prototype: object, name: string): ((of: Node) => Value) =>
  (of) =>
    Object.getOwnPropertyDescriptor(prototype, name)!.get!.call(of) as Value;

export const parentElementOf = read<Element | null>(Node.prototype, 'parentElement');
export const childNodesOf = read<NodeListOf<ChildNode>>(Node.prototype, 'childNodes');
export const childrenOf = read<HTMLCollection>(Element.prototype, 'children');
export const localNameOf = read<string>(Element.prototype, 'localName');
export const rootOf = read<Element | null>(Document.prototype, 'documentElement');
export const viewOf = read<(Window & typeof globalThis) | null>(Document.prototype, 'defaultView');
/** Of an element's document. */
export const ownViewOf = (element: Element): Window & typeof globalThis =>
  viewOf(read<Document>(Node.prototype, 'ownerDocument')(element))!;

export const sheetsOf = (document: Document): Iterable<CSSStyleSheet> =>
  Object.getOwnPropertyDescriptor(Document.prototype, 'styleSheets')!.get!.call(document) as StyleSheetList;

export const queryOne = (document: Document, selector: string): Element | null =>
  Document.prototype.querySelector.call(document, selector);

export const queryAll = (document: Document, selector: string): readonly Element[] => [
  ...Document.prototype.querySelectorAll.call(document, selector),
];

export const elementAt = (document: Document, x: number, y: number): Element | null =>
  Document.prototype.elementFromPoint.call(document, x, y);

export const boxOf = (element: Element): DOMRect => Element.prototype.getBoundingClientRect.call(element);
