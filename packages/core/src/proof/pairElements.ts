import { trimmed } from '../source/space.ts';
import { isStylesheetRel } from '../page/styleSources.ts';
import { attributeOf, type ChildNode, type ElementNode, type ParentNode } from '../page/nodes.ts';
import { plainElementFor } from '../page/plainElements.ts';
import { presentationalParts, replaceableHints } from '../page/presentational.ts';
import { idNumbers, valueWithoutNames, type IdNumbers } from '../page/idNames.ts';
import type { PageTree } from '../page/parsePage.ts';

/** Two elements that are one and the same before and after. */
export interface ElementPair {
  readonly before: ElementNode;
  readonly after: ElementNode;
}

/** Something in the page itself, not in its styling, that is not the same. */
export type MarkupDifference =
  | {
      readonly kind: 'element-differs';
      readonly before: string;
      readonly after: string;
      readonly parent: ElementNode | undefined;
    }
  | { readonly kind: 'attribute-differs'; readonly element: ElementNode; readonly name: string }
  | { readonly kind: 'text-differs'; readonly element: ElementNode }
  /** What is shown in place of an element's contents. */
  | { readonly kind: 'shadow-differs'; readonly element: ElementNode }
  /** Text that a block or link parted is one run now, or the other way about. */
  | { readonly kind: 'text-joined'; readonly element: ElementNode }
  /** A block or link was all that it held, or is. */
  | { readonly kind: 'emptied'; readonly element: ElementNode }
  | { readonly kind: 'mode-differs'; readonly before: string; readonly after: string };

export interface Pairing {
  readonly pairs: readonly ElementPair[];
  readonly differences: readonly MarkupDifference[];
  /** Some element says by a presentational attribute what the other one does not: their declarations count then. */
  readonly hintsMoved: boolean;
  /** Pairs whose contents are kept apart from the page, for scripts to copy, and are not the same. */
  readonly templates: readonly ElementPair[];
  /** Pairs in whose text only the amount of white space differs: it shows where white space is kept. */
  readonly spacing: readonly ElementPair[];
}

/**
 * Walks two trees side by side. Links to sheets and `style` elements may come and go; `style` and `class` attributes may
 * differ, and presentational ones go, and elements that only style become plain ones (the cascade sees to them); IDs may have other
 * names where all that refers to them has as well; all else must be equal.
 */
export function pairElements(before: PageTree, after: PageTree): Pairing {
  if (before === after)
    return { pairs: pairsOfOne(before), differences: [], spacing: [], templates: [], hintsMoved: false };
  const pairs: ElementPair[] = [];
  const differences: MarkupDifference[] = [];
  const spacing: ElementPair[] = [];
  const templates: ElementPair[] = [];
  const ids = [idNumbers(before.elements), idNumbers(after.elements)] as const;
  const out: Walk = {
    pairs,
    differences,
    templates,
    spacing,
    hintsMoved: false,
    ids,
    renamed: !sameNames(...ids),
  };
  if (before.mode !== after.mode) differences.push({ kind: 'mode-differs', before: before.mode, after: after.mode });
  const stack: [ParentNode, ParentNode][] = [[before.document, after.document]];
  while (stack.length > 0 && differences.length < 20) {
    const [left, right] = stack.pop()!;
    compareChildren(left, right, out, stack);
  }
  for (const pair of pairs) if (pair.before.tag === 'template') compareTemplates(pair, before.text, after.text, out);
  return out;
}

/** The elements of a tree that is the same in both states, in the order of two. */
function pairsOfOne({ document }: PageTree): ElementPair[] {
  const pairs: ElementPair[] = [];
  const stack: ParentNode[] = [document];
  while (stack.length > 0)
    for (const child of stack.pop()!.children)
      if (child.type === 'element' && !isStyleSource(child)) {
        pairs.push({ before: child, after: child });
        if (child.children.length > 0) stack.push(child);
      }
  return pairs;
}

function compareTemplates(pair: ElementPair, before: string, after: string, out: Walk): void {
  if (templateText(pair.before, before) === templateText(pair.after, after)) return;
  if (isShadowTemplate(pair.before) || isShadowTemplate(pair.after))
    out.differences.push({ kind: 'shadow-differs', element: pair.before });
  else out.templates.push(pair);
}

/** A `template` whose contents are shown in place of its parent's: HTML Standard, "The template element", `shadowrootmode`. */
export const isShadowTemplate = (element: ElementNode): boolean =>
  element.tag === 'template' &&
  element.namespace === 'html' &&
  /^(open|closed)$/i.test(attributeOf(element, 'shadowrootmode') ?? '');

/** What stands between the tags of a `template`. */
export const templateText = ({ startTagEnd, endTagStart, end }: ElementNode, text: string): string =>
  startTagEnd < 0 ? '' : text.slice(startTagEnd, endTagStart < 0 ? end : endTagStart);

interface Walk {
  readonly pairs: ElementPair[];
  readonly templates: ElementPair[];
  readonly differences: MarkupDifference[];
  readonly spacing: ElementPair[];
  hintsMoved: boolean;
  /** Of the page before and after. */
  readonly ids: readonly [IdNumbers, IdNumbers];
  /** Their IDs have not the same names. */
  readonly renamed: boolean;
}

function compareChildren(left: ParentNode, right: ParentNode, out: Walk, stack: [ParentNode, ParentNode][]): void {
  const a = elementsAndText(left.children);
  const b = elementsAndText(right.children);
  const count = Math.max(a.elements.length, b.elements.length);
  for (let i = 0; i < count; i++) {
    const one = a.elements[i];
    const two = b.elements[i];
    const renamed = one !== undefined && two !== undefined && plainElementFor(one) === two.tag;
    if (!one || !two || (one.tag !== two.tag && !renamed) || one.namespace !== two.namespace) {
      const parent = left.type === 'element' ? left : undefined;
      out.differences.push({
        kind: 'element-differs',
        before: one?.tag ?? 'nothing',
        after: two?.tag ?? 'nothing',
        parent,
      });
      return;
    }
    const names = attributesApart(one, two, out);
    const name = names.find((each) => !isReplaceable(one, each));
    if (name === undefined && (names.length > 0 || renamed)) out.hintsMoved = true;
    if (name !== undefined) out.differences.push({ kind: 'attribute-differs', element: one, name });
    out.pairs.push({ before: one, after: two });
    if (one.children.length > 0 || two.children.length > 0) stack.push([one, two]);
  }
  if (left.type !== 'element' || right.type !== 'element') return;
  compareText(left, right, a.texts, b.texts, out);
  if (left.tag !== 'head' && left.tag !== 'html' && joinedAt(left.children) !== joinedAt(right.children))
    out.differences.push({ kind: 'text-joined', element: left });
  if (holdsSomething(left) !== holdsSomething(right)) out.differences.push({ kind: 'emptied', element: left });
}

/**
 * Where it matters whether an element holds anything: an `object` shows that in place of what it could not load, and what is in a host takes
 * the place of what its slot holds. HTML Standard, "The object element", "The slot element".
 */
export function holdsSomething(element: ElementNode): boolean | undefined {
  const { tag, namespace, children } = element;
  if (namespace !== 'html') return undefined;
  if (tag === 'object')
    return children.some((one) =>
      one.type === 'element' ? one.tag !== 'param' : one.type === 'text' && trimmed(one.value) !== '',
    );
  const isHost = tag.includes('-') || children.some((one) => one.type === 'element' && isShadowTemplate(one));
  if (!isHost) return undefined;
  return children.some((one) => one.type === 'text' || (one.type === 'element' && !isShadowTemplate(one)));
}

/** After how much text, white space left out, a link or block parts two runs of it; empty where none does. */
export function joinedAt(children: readonly ChildNode[]): string {
  const places: number[] = [];
  let length = 0;
  let follows = false;
  let parted = false;
  for (const child of children) {
    if (child.type === 'text') {
      const solid = child.value.replace(/[\t\n\f\r ]+/g, '').length;
      if (solid === 0) continue;
      if (parted) places.push(length);
      follows = true;
      parted = false;
      length += solid;
    } else if (child.type === 'element' && isStyleSource(child)) parted = follows;
    else if (child.type === 'element') follows = parted = false;
  }
  return places.join(' ');
}

function compareText(
  left: ElementNode,
  right: ElementNode,
  a: readonly string[],
  b: readonly string[],
  out: Pick<Walk, 'differences' | 'spacing'>,
): void {
  const invisible = left.tag === 'head' || left.tag === 'html';
  for (let i = 0; i < Math.max(a.length, b.length); i++) {
    const one = a[i] ?? '';
    const two = b[i] ?? '';
    if (one === two) continue;
    if (foldedSpace(one) !== foldedSpace(two)) {
      if (invisible && trimmed(foldedSpace(one)) === trimmed(foldedSpace(two))) continue;
      out.differences.push({ kind: 'text-differs', element: left });
      return;
    }
    if (!invisible) {
      out.spacing.push({ before: left, after: right });
      return;
    }
  }
}

/** CSS Text 3, "White Space Processing": spaces, tabs and line ends are alike; a form feed is a character of its own. */
export const foldedSpace = (text: string): string => text.replace(/[\t\n\r ]+/g, ' ');

/** The elements that are no style sources, and the text before, between and after them. */
function elementsAndText(children: readonly ChildNode[]): { elements: ElementNode[]; texts: string[] } {
  const elements: ElementNode[] = [];
  const texts: string[] = [''];
  for (const child of children) {
    if (child.type === 'text') texts[texts.length - 1] += child.value;
    else if (child.type === 'element' && !isStyleSource(child)) {
      elements.push(child);
      texts.push('');
    }
  }
  return { elements, texts };
}

export function isStyleSource(element: ElementNode): boolean {
  if (element.tag === 'style') return element.namespace === 'html' || element.namespace === 'svg';
  return element.tag === 'link' && element.namespace === 'html' && isStylesheetRel(attributeOf(element, 'rel') ?? '');
}

function differingAttributes(one: ElementNode, two: ElementNode): readonly string[] {
  const left = one.attributes;
  const right = two.attributes;
  if (left.length === right.length && left.every((x, i) => x.name === right[i]!.name && x.value === right[i]!.value))
    return [];
  const out: string[] = [];
  for (const { name, value } of left)
    if (name !== 'style' && name !== 'class' && attributeOf(two, name) !== value) out.push(name);
  for (const { name } of right)
    if (name !== 'style' && name !== 'class' && attributeOf(one, name) === undefined) out.push(name);
  return out;
}

const sameNames = (before: IdNumbers, after: IdNumbers): boolean =>
  before.size === after.size && [...before].every(([id, number]) => after.get(id) === number);

/** Attributes that do not say the same. Where IDs have other names, what refers to them has to go with them. */
function attributesApart(one: ElementNode, two: ElementNode, { ids, renamed }: Walk): readonly string[] {
  const apart = differingAttributes(one, two).filter((name) => saysSame(one, two, name, ids) !== true);
  if (!renamed) return apart;
  const said = one.attributes.map(({ name }) => name).filter((name) => saysSame(one, two, name, ids) === false);
  return [...new Set([...apart, ...said])];
}

/** Undefined where the attribute names no ID. */
function saysSame(
  one: ElementNode,
  two: ElementNode,
  name: string,
  [before, after]: readonly [IdNumbers, IdNumbers],
): boolean | undefined {
  const [left, right] = [attributeOf(one, name), attributeOf(two, name)];
  const said = left === undefined ? undefined : valueWithoutNames(one, name, left, before);
  if (said === undefined || right === undefined) return undefined;
  return said === valueWithoutNames(two, name, right, after);
}

/** Nothing but a presentational attribute of this element alone. */
const isReplaceable = (element: ElementNode, name: string): boolean =>
  replaceableHints.has(name) && presentationalParts(element).includes(name);
