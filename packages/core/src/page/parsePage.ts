import {
  attributeOf,
  type ChildNode,
  type CommentNode,
  type DocumentNode,
  type ElementNode,
  type ParentNode,
} from './nodes.ts';
import type { SiteFile } from '../source/site.ts';
import { withoutCode } from '../source/templates.ts';
import { placingParser } from './placingParser.ts';
import { StylePolicies } from './stylePolicy.ts';
import { makeTreeAdapter } from './treeAdapter.ts';

/** A page as the HTML standard's parser builds it. Contents of `template` are left out. */
export interface PageTree {
  readonly text: string;
  readonly document: DocumentNode;
  readonly mode: DocumentNode['mode'];
  /** All elements in document order; `elements[i].index === i`. */
  readonly elements: readonly ElementNode[];
  readonly comments: readonly CommentNode[];
}

/**
 * Parses a page. With `scripting` (as in a browser) the contents of `noscript` are text; without, they are elements.
 *
 * HTML Standard, "Parsing HTML documents"; beyond 512 open elements as Chromium, where deeper ones become siblings. Never
 * throws; the tree is walked without recursion. Of a page that a server runs (`isRun`), its code counts as comments.
 */
export function parsePage(text: string, scripting = true, isRun = false): PageTree {
  // a byte order mark is no part of what browsers parse; as white space before the doctype it is passed over, and places stay
  const parser = placingParser({
    treeAdapter: makeTreeAdapter(),
    sourceCodeLocationInfo: true,
    scriptingEnabled: scripting,
  });
  const sent = isRun ? withoutCode(text) : text;
  parser.tokenizer.write(sent.startsWith('\ufeff') ? ` ${sent.slice(1)}` : sent, true);
  const { document } = parser;
  const elements: ElementNode[] = [];
  const comments: CommentNode[] = [];
  const stack: { node: ParentNode; at: number }[] = [{ node: document, at: 0 }];
  numberSiblings(document);
  while (stack.length > 0) {
    const top = stack.at(-1)!;
    const child = top.node.children[top.at++];
    if (child === undefined) stack.pop();
    else if (child.type === 'comment') comments.push(child);
    else if (child.type === 'element') {
      child.index = elements.length;
      elements.push(child);
      if (child.children.length > 0) {
        numberSiblings(child);
        stack.push({ node: child, at: 0 });
      }
    }
  }
  markForbiddenStyles(elements);
  return { text, document, mode: document.mode, elements, comments };
}

/** The page of `file`, as a browser gets it as far as can be told from here. */
export const parseFile = ({ text = '', isRun }: Pick<SiteFile, 'text' | 'isRun'>, scripting = true): PageTree =>
  parsePage(text, scripting, isRun);

function markForbiddenStyles(elements: readonly ElementNode[]): void {
  const policies = new StylePolicies(elements);
  if (policies.isEmpty) return;
  for (const element of elements) {
    const style = attributeOf(element, 'style');
    if (style !== undefined && policies.attribute(element, style) === 'no') element.styleIgnored = true;
  }
}

function numberSiblings(parent: ParentNode): void {
  const siblings: ElementNode[] = [];
  for (const child of parent.children) {
    if (child.type !== 'element') continue;
    child.siblingIndex = siblings.length;
    child.siblings = siblings;
    siblings.push(child);
  }
}

export const parentElement = (element: ElementNode): ElementNode | undefined =>
  element.parent?.type === 'element' ? element.parent : undefined;

export const previousElement = (element: ElementNode): ElementNode | undefined =>
  element.siblings[element.siblingIndex - 1];

/** The element's own path, as people and scripts can follow it: `html>body:nth-child(2)>p:nth-child(1)`. */
export function elementPath(element: ElementNode): string {
  const parent = parentElement(element);
  if (!parent) return element.tag;
  return `${pathOfParent(parent)}>${element.tag}:nth-child(${element.siblingIndex + 1})`;
}

const parentPaths = new WeakMap<ElementNode, string>();

/** Written once for all children: deep trees have many of them. */
function pathOfParent(element: ElementNode): string {
  let path = parentPaths.get(element);
  if (path === undefined) parentPaths.set(element, (path = elementPath(element)));
  return path;
}

/** The element a path leads to, as `elementPath` writes it; undefined when it leads nowhere. */
export function elementAt({ document }: PageTree, path: string): ElementNode | undefined {
  let siblings = siblingsIn(document);
  let at: ElementNode | undefined;
  for (const [depth, step] of path.split('>').entries()) {
    // a name may hold colons of its own: `o:p`
    const found = /^(.+?)(?::nth-child\((\d+)\))?$/s.exec(step);
    // only the root is named without its place
    if (!found || (found[2] === undefined) !== (depth === 0)) return undefined;
    at = depth === 0 ? siblings.find((one) => one.tag === found[1]) : siblings[Number(found[2]) - 1];
    if (at?.tag !== found[1]) return undefined;
    siblings = siblingsIn(at!);
  }
  return at;
}

const siblingsIn = (parent: ParentNode): readonly ElementNode[] =>
  parent.children.find((child) => child.type === 'element')?.siblings ?? [];

/** A short name for people: `h2#prices`, `p.notice`. */
export function elementName(element: ElementNode): string {
  const id = element.id !== undefined ? `#${element.id}` : '';
  const classes =
    id === ''
      ? element.classes
          .slice(0, 2)
          .map((name) => `.${name}`)
          .join('')
      : '';
  return `${element.tag}${id}${classes}`;
}

/** All text inside an element, in order. */
export function textContent(element: ElementNode): string {
  const parts: string[] = [];
  const stack: ChildNode[] = [...element.children].reverse();
  for (let at = stack.pop(); at; at = stack.pop()) {
    if (at.type === 'text') parts.push(at.value);
    else if (at.type === 'element') for (let i = at.children.length - 1; i >= 0; i--) stack.push(at.children[i]!);
  }
  return parts.join('');
}
