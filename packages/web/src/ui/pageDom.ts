/**
 * A page may name an element so that it hides what its document or form has of itself (`<img name=body>`, `<form><input
 * name=parentElement>`): what is asked of pages in frames is asked by the prototypes, which nobody hides.
 *
 * HTML Standard, "DOM tree accessors" (named properties of documents) and "The form element".
 */
const read =
  <Value>(prototype: () => object, name: string): ((of: Node) => Value) =>
  (of) =>
    Object.getOwnPropertyDescriptor(prototype(), name)!.get!.call(of) as Value;
const ofNode = (): object => Node.prototype;
const ofElement = (): object => Element.prototype;
const ofDocument = (): object => Document.prototype;

export const parentElementOf = read<Element | null>(ofNode, 'parentElement');
export const childNodesOf = read<NodeListOf<ChildNode>>(ofNode, 'childNodes');
export const childrenOf = read<HTMLCollection>(ofElement, 'children');
export const localNameOf = read<string>(ofElement, 'localName');
export const rootOf = read<Element | null>(ofDocument, 'documentElement');
export const viewOf = read<(Window & typeof globalThis) | null>(ofDocument, 'defaultView');
export const sheetsOf = read<StyleSheetList>(ofDocument, 'styleSheets');
const documentOf = read<Document>(ofNode, 'ownerDocument');

/** Of an element's document. */
export const ownViewOf = (element: Element): Window & typeof globalThis => viewOf(documentOf(element))!;

export const queryOne = (document: Document, selector: string): Element | null =>
  Document.prototype.querySelector.call(document, selector);

export const queryAll = (document: Document, selector: string): readonly Element[] => [
  ...Document.prototype.querySelectorAll.call(document, selector),
];

export const elementAt = (document: Document, x: number, y: number): Element | null =>
  Document.prototype.elementFromPoint.call(document, x, y);

export const boxOf = (element: Element): DOMRect => Element.prototype.getBoundingClientRect.call(element);
